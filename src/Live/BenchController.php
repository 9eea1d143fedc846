<?php

declare(strict_types=1);

namespace Ortholex\App\Live;

use Ortholex\App\Craft\Crafts;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** The bench strip: hands on the physical world, and eyes on it. */
#[AsController]
final readonly class BenchController
{
    public function __construct(private Crafts $crafts, private Worlds $worlds, private LiveState $live)
    {
    }

    #[Route('/craft/{slug}/live.json', name: 'live', methods: ['GET'])]
    public function live(string $slug): JsonResponse
    {
        return new JsonResponse($this->live->of($this->crafts->glance($slug)));
    }

    #[Route('/craft/{slug}/bench', name: 'bench_move', methods: ['POST'])]
    public function move(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->glance($slug);
        $input = Input::of($request);
        try {
            $this->worlds->of($craft)->move($input->text('thing', 60), $input->text('to', 40));
        } catch (\InvalidArgumentException $e) {
            throw BadRequest::at('thing', $e->getMessage());
        }

        return new JsonResponse($this->live->of($craft));
    }
}
