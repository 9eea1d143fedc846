<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Two digits that no sheet has: said so, in words. */
#[AsController]
final class NoSuchSheetController
{
    #[Route('/craft/{slug}/{sheet<\d\d>}', name: 'no_such_sheet', methods: ['GET'], priority: -10)]
    public function sheet(string $slug, string $sheet): never
    {
        throw new NotFoundHttpException("The book has no sheet $sheet.");
    }
}
