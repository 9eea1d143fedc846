<?php

declare(strict_types=1);

namespace Ortholex\App\Incident;

use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Settings\Airframes;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 55: the moment it went wrong. */
#[AsController]
final class IncidentsController extends SheetController
{
    public function __construct(
        private readonly LogBook $book,
        private readonly AnalysisStore $analyses,
        private readonly Airframes $frames,
    ) {
    }

    #[Route('/craft/{slug}/55', name: 'incidents', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $incidents = null === $log ? [] : $this->analyses->report($log)->incidents;

        return $this->show(
            $craft,
            '55',
            'Incident/incidents.html.twig',
            new IncidentsView(
                $this->book->of($craft),
                $log,
                $incidents,
                $incidents[$request->query->getInt('n')] ?? ($incidents[0] ?? null),
                $this->frames->of($craft),
            ),
        );
    }
}
