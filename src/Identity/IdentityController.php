<?php

declare(strict_types=1);

namespace Ortholex\App\Identity;

use Ortholex\App\Book\Craft;
use Ortholex\App\Identity\Believed\Beliefs;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Shell\Answer;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Difference;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Wiring\BoardPads;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class IdentityController extends SheetController
{
    public function __construct(
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Snapshots $snapshots,
        private readonly Catalogue $catalogue,
        private readonly Escs $escs,
        private readonly Airframes $frames,
        private readonly Beliefs $beliefs,
    ) {
    }

    #[Route('/craft/{slug}/11', name: 'identity', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $defaults = $this->catalogue->defaults($craft->version());
        $different = 0;
        foreach ($craft->settings as $name => $value) {
            $different += isset($defaults[$name]) && !Setting::same($defaults[$name], $value) ? 1 : 0;
        }
        $state = $this->benches->of($craft)->state();
        $snapshots = $this->snapshots->of($craft);

        return $this->show(
            $craft,
            '11',
            'Identity/identity.html.twig',
            new IdentityView(
                $this->links->isLinked($craft),
                $different,
                \count($snapshots),
                [] === $snapshots ? null : $snapshots[0]->takenAt->format('Y-m-d H:i'),
                $this->frames->of($craft),
                $state->cable,
                $state->pack,
                $this->escs->isRead($craft),
                Escs::identities($craft),
                array_flip(EscTable::pads($craft->settings)),
                $craft->escsProblem,
                $this->rails($craft),
                intdiv($craft->flashEnd - $craft->flashFrom, 1024),
                array_map(
                    fn (Difference $d): array => [
                        'setting' => $this->catalogue->get($d->name, $craft->version()),
                        'book' => $d->book,
                        'craft' => $d->craft,
                        'read' => $craft->believed[$d->name]['read'],
                        'at' => $craft->believed[$d->name]['at'] ?? '',
                    ],
                    $this->beliefs->open($craft),
                ),
            ),
        );
    }

    /** @return list<array{label: string, alive: bool, when: string}> */
    private function rails(Craft $craft): array
    {
        $state = $this->benches->of($craft)->state();
        $rails = [];
        foreach (BoardPads::of($craft->hardwareId ?? '')?->rails() ?? [] as $rail) {
            $rails[] = [
                'label' => $rail->label,
                'alive' => $state->pack || ($state->cable && $rail->aliveOnUsb),
                'when' => $rail->aliveOnUsb ? 'alive on USB' : 'alive on pack only',
            ];
        }

        return $rails;
    }

    #[Route('/craft/{slug}/link', name: 'link', methods: ['POST'])]
    public function link(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $linked = $this->links->link($craft);
        $first = $craft->inBootloader ? 'Only its bootloader answers: write firmware on sheet 12.' : 'Linked.';

        return Answer::said(implode(' ', [$first, ...$linked->said]));
    }

    #[Route('/craft/{slug}/let-go', name: 'let_go', methods: ['POST'])]
    public function letGo(string $slug): Answer
    {
        $this->links->letGo($this->crafts->named($slug));

        return Answer::said('Unlinked.');
    }
}
