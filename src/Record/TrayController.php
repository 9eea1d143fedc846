<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Craft\Crafts;
use Ortholex\App\Shell\Input;
use Ortholex\App\Tray\TrayBuilder;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Twig\Environment;

#[AsController]
final readonly class TrayController
{
    public function __construct(
        private Crafts $crafts,
        private Staging $staging,
        private Commit $commit,
        private TrayBuilder $trays,
        private Environment $twig,
    ) {
    }

    #[Route('/craft/{slug}/tray', name: 'tray', methods: ['GET'])]
    public function tray(string $slug): Response
    {
        $craft = $this->crafts->named($slug);

        return new Response($this->twig->render('_parts/tray.html.twig', ['craft' => $craft, 'tray' => $this->trays->of($craft)]));
    }

    #[Route('/craft/{slug}/stage', name: 'stage', methods: ['POST'])]
    public function stage(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $this->staging->stage($craft, Input::of($request)->map('values'));

        return new JsonResponse(['staged' => $this->staging->of($craft)]);
    }

    #[Route('/craft/{slug}/discard', name: 'discard', methods: ['POST'])]
    public function discard(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $name = Input::of($request)->text('name');
        $this->staging->discard($craft, '' === $name ? null : [$name]);

        return new JsonResponse(['staged' => $this->staging->of($craft)]);
    }

    #[Route('/craft/{slug}/commit', name: 'commit', methods: ['POST'])]
    public function commit(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $entry = $this->commit->run($craft, Input::of($request)->text('reason', 500));

        return new JsonResponse([
            'revision' => $entry->revision,
            'said' => \count($entry->items).
                (1 === \count($entry->items) ? ' change is' : ' changes are').
                ' on the craft, as revision '.
                $entry->revision.
                '.',
        ]);
    }
}
