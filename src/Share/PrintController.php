<?php

declare(strict_types=1);

namespace Ortholex\App\Share;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\Sheets;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Twig\Environment;

/** The whole book on paper, or as one PDF by the browser: a cover, every sheet as it stands, and all settings as a list. */
#[AsController]
final readonly class PrintController
{
    /** A list of hundreds of settings is printed as a list. */
    private const AS_LIST = '71';

    public function __construct(
        private Crafts $crafts,
        private Sheets $sheets,
        private Catalogue $catalogue,
        private ClockInterface $clock,
        private Environment $twig,
    ) {
    }

    #[Route('/craft/{slug}/book/print', name: 'book_print', methods: ['GET'])]
    public function show(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $sheets = array_filter($this->sheets->all(), static fn (Sheet $s): bool => $s->built);

        return new Response(
            $this->twig->render('Share/print.html.twig', [
                'craft' => $craft,
                'here' => ['slug' => $slug],
                'date' => $this->clock->now()->format('Y-m-d'),
                'sheets' => $sheets,
                'leaves' => array_filter($sheets, static fn (Sheet $s): bool => self::AS_LIST !== $s->number),
                'groups' => $this->settings($craft),
            ]),
        );
    }

    /** @return array<string, list<array{setting: Setting, value: float|int|bool|string}>> by group */
    private function settings(Craft $craft): array
    {
        $groups = [];
        foreach ($craft->settings as $name => $value) {
            if ($this->catalogue->has($name, $craft->version())) {
                $setting = $this->catalogue->get($name, $craft->version());
                $groups[$setting->group->value][] = ['setting' => $setting, 'value' => $value];
            }
        }

        return $groups;
    }
}
