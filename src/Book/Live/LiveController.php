<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Live;

use Ortholex\App\Book\Crafts;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final readonly class LiveController
{
    public function __construct(private Crafts $crafts, private LiveState $live)
    {
    }

    #[Route('/craft/{slug}/live.json', name: 'live', methods: ['GET'])]
    public function live(string $slug): JsonResponse
    {
        return new JsonResponse($this->live->of($this->crafts->glance($slug)));
    }
}
