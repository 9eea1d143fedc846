<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\App\Book\Sheet\Sheets;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Sheets that are not built yet: they say what will stand there. */
#[AsController]
final class PlannedSheetController extends SheetController
{
    public const ROUTE = 'planned_sheet';

    public function __construct(private readonly Sheets $sheets)
    {
    }

    #[Route('/craft/{slug}/{sheet<\d\d>}', name: self::ROUTE, methods: ['GET'], priority: -10)]
    public function sheet(string $slug, string $sheet): Response
    {
        if (!isset($this->sheets->all()[$sheet])) {
            throw new NotFoundHttpException("The book has no sheet $sheet.");
        }

        return $this->show($this->crafts->named($slug), $sheet, 'Page/planned.html.twig', null);
    }
}
