<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Settings\File\YamlText;
use Ortholex\App\Settings\Staging;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Twig\Environment;

/** What is staged, to be carried to a craft that no cable reaches: as a file, and as a list to print. */
#[AsController]
final readonly class StagedListController
{
    public function __construct(
        private Crafts $crafts,
        private Staging $staging,
        private TrayBuilder $trays,
        private Environment $twig,
    ) {
    }

    #[Route('/craft/{slug}/staged.yaml', name: 'staged_yaml', methods: ['GET'])]
    public function yaml(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $staged = $this->staging->of($craft)->among($craft->settings);
        $text = YamlText::write($craft->name, $craft->board ?? '', $craft->version()->toString(), $craft->revision, $staged);

        return new Response($text, 200, [
            'Content-Type' => 'application/yaml; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"{$craft->slug}-staged.yaml\"",
        ]);
    }

    #[Route('/craft/{slug}/staged', name: 'staged_list', methods: ['GET'])]
    public function list(string $slug): Response
    {
        $craft = $this->crafts->named($slug);

        return new Response(
            $this->twig->render('Settings/staged.html.twig', [
                'craft' => $craft,
                'here' => ['slug' => $slug],
                'tray' => $this->trays->of($craft),
            ]),
        );
    }
}
