<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Sheets that are not built yet: they say what will stand there. */
#[AsController]
final class PlannedSheetController extends SheetController
{
    #[Route('/craft/{slug}/{sheet<\d\d>}', name: 'planned_sheet', methods: ['GET'], priority: -10)]
    public function sheet(string $slug, string $sheet): Response
    {
        if (!isset(Sheets::all()[$sheet])) {
            throw new NotFoundHttpException("The book has no sheet $sheet.");
        }

        return $this->show($this->crafts->named($slug), $sheet, 'Shell/planned.html.twig', null);
    }
}
