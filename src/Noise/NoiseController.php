<?php

declare(strict_types=1);

namespace Ortholex\App\Noise;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\LogSheetView;
use Ortholex\App\Shell\BadRequest;
use Ortholex\Core\Report\MapChart;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class NoiseController extends SheetController
{
    /** Logs beside the one: more than three maps in a row nobody compares. */
    private const MOST_BESIDE = 2;

    /** What a difference map shows at its ends, dB. */
    private const SPAN_DB = 18.0;

    public function __construct(
        private readonly LogBook $book,
        private readonly AnalysisStore $analyses,
        private readonly NoiseFindings $findings,
    ) {
    }

    #[Route('/craft/{slug}/53', name: 'noise', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $besides = null === $log ? [] : $this->book->besides($craft, $request, self::MOST_BESIDE);
        $passage = $this->book->passage($log, $request->query->getInt('passage'));
        $report = null === $log ? null : $this->analyses->report($log, $passage);
        $others = array_map($this->analyses->report(...), $besides);
        $findings = $compared = [];
        $answer = 'No log yet, so nothing is known of the noise.';
        if (null !== $log && null !== $report) {
            $charts = $this->analyses->charts($log, $passage);
            [$answer, $findings] = $this->findings->of($report, $charts);
            if ([] !== $besides) {
                $codes = array_map(static fn (Log $l): string => $l->code, $besides);
                [$answer, $compared] = NoiseFindings::among(
                    [$log->code => $charts] + array_combine($codes, array_map($this->analyses->charts(...), $besides)),
                    [$log->code => $report] + array_combine($codes, $others),
                );
            }
        }

        return $this->show(
            $craft,
            '53',
            'Noise/noise.html.twig',
            new LogSheetView(
                $this->book->of($craft),
                $log,
                $besides,
                $report,
                $others,
                null === $log ? [] : LogBook::differences($besides, $log),
                $findings,
                $answer,
                $this->book->passages($log),
                $passage,
                axis: $request->query->getString('axis'),
                compared: $compared,
            ),
        );
    }

    /** Curves and report of a log, as the sheets draw them. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/analysis.json', name: 'log_analysis', methods: ['GET'])]
    public function analysis(string $slug, int $id, Request $request): Response
    {
        $log = $this->book->one($this->crafts->named($slug), $id);

        return new Response($this->analyses->text($log, $this->book->passage($log, $request->query->getInt('passage'))), 200, [
            'Content-Type' => 'application/json',
        ]);
    }

    /** Noise maps of a log less those of another, by axis, against throttle and against rotor speed. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/less/{other<\d+>}.json', name: 'log_less', methods: ['GET'])]
    public function less(string $slug, int $id, int $other, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->one($craft, $id);
        if ($id === $other) {
            throw BadRequest::at('other', 'A log held against itself shows nothing. Choose another.');
        }
        $a = $this->analyses->charts($log, $this->book->passage($log, $request->query->getInt('passage')));
        $b = $this->analyses->charts($this->book->one($craft, $other));
        $ratio = ($a->fullRpm ?? 1.0) / max(1.0, $b->fullRpm ?? 1.0);
        $out = [];
        foreach (
            ['map' => [$a->maps, $b->maps, 1.0], 'rpm_map' => [$a->rpmMaps, $b->rpmMaps, $ratio]] as $kind => [$here, $there, $scale]
        ) {
            foreach ($here as $axis => $map) {
                if (isset($there[$axis])) {
                    $out[$kind][$axis] = MapChart::difference($map->less($there[$axis], $scale), self::SPAN_DB);
                }
            }
        }

        return new JsonResponse($out);
    }
}
