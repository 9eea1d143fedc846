<?php

declare(strict_types=1);

namespace Ortholex\App\Upload;

use Ortholex\App\Shell\Input;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final readonly class UploadController
{
    public function __construct(private Uploads $uploads)
    {
    }

    #[Route('/uploads', name: 'upload_begin', methods: ['POST'])]
    public function begin(Request $request): JsonResponse
    {
        return new JsonResponse([
            'upload' => $this->uploads->begin(Input::of($request)->whole('bytes', 0, \PHP_INT_MAX)),
            'piece' => Uploads::PIECE_BYTES,
        ]);
    }

    #[Route('/uploads/{id<[0-9a-f]{32}>}', name: 'upload_piece', methods: ['PUT'])]
    public function piece(string $id, Request $request): JsonResponse
    {
        return new JsonResponse([
            'have' => $this->uploads->add($id, max(0, $request->query->getInt('offset')), $request->getContent(true)),
        ]);
    }
}
