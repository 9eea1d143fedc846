<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Making;

use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Shell\Answer;
use Ortholex\Core\Airframe\Layout;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Twig\Environment;

/** A craft that is not here: its logs and its settings are. */
#[AsController]
final readonly class ByHandController
{
    public function __construct(
        private CraftMaker $maker,
        private Catalogue $catalogue,
        private SettingsFile $files,
        private UrlGeneratorInterface $urls,
        private Environment $twig,
    ) {
    }

    #[Route('/workshop/by-logs', name: 'craft_by_logs', methods: ['GET'])]
    public function show(): Response
    {
        $layouts = array_filter(Layout::cases(), static fn (Layout $l): bool => Layout::Custom !== $l);

        return new Response($this->twig->render('Workshop/by_logs.html.twig', ['layouts' => $layouts]));
    }

    #[Route('/workshop/by-logs', name: 'make_by_logs', methods: ['POST'])]
    public function make(Request $request): Answer
    {
        $form = ByHandForm::of($request, $this->catalogue, $this->files);
        $craft = $this->maker->byHand($form);

        return Answer::of(['craft' => $craft->slug, 'said' => "{$craft->name} is in the Workshop. Bring in its first log."])->to(
            $this->urls->generate('logs', ['slug' => $craft->slug]),
        );
    }
}
