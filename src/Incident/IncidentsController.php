<?php

declare(strict_types=1);

namespace Ortholex\App\Incident;

use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Settings\Airframes;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\LogCheck\AdequacyCode;
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
        $report = null === $log ? null : $this->analyses->report($log);
        $incidents = $report->incidents ?? [];

        return $this->show(
            $craft,
            '55',
            'Incident/incidents.html.twig',
            new IncidentsView(
                $this->book->of($craft),
                $log,
                $incidents,
                $incidents[$request->query->getInt('n', -1)] ?? self::gravest($incidents),
                $this->frames->of($craft),
                $report?->adequacy->allows(AdequacyCode::WhoStoppedPushing) ?? false,
            ),
        );
    }

    /** @param list<Incident> $incidents */
    private static function gravest(array $incidents): ?Incident
    {
        $motors = array_filter($incidents, static fn (Incident $i): bool => $i->kind->isOfMotor());
        $grave = array_filter($incidents, static fn (Incident $i): bool => $i->kind->isGrave());

        return array_values($motors)[0] ?? array_values($grave)[0] ?? $incidents[0] ?? null;
    }
}
