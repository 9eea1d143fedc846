<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Ortholex\App\Shell\SheetController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class NoiseController extends SheetController
{
    public function __construct(private readonly LogBook $book, private readonly AnalysisStore $analyses)
    {
    }

    #[Route('/craft/{slug}/53', name: 'noise', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $beside = $request->query->getInt('beside') > 0 ? $this->book->one($craft, $request->query->getInt('beside')) : null;
        $passage = $this->book->passage($log, $request->query->getInt('passage'));
        $report = null === $log ? [] : $this->analyses->report($log, $passage);
        $findings = [];
        $answer = 'No log yet, so nothing is known of the noise.';
        if (null !== $log) {
            [$answer, $findings] = NoiseFindings::of($report, $this->analyses->charts($log, $passage));
        }

        if (null !== $log && null !== $beside) {
            [$sentence, $compared] = NoiseFindings::beside($this->analyses->charts($log, $passage), $this->analyses->charts($beside), $log->code, $beside->code);
            $answer = $sentence;
            $findings = [...$compared, ...$findings];
        }

        return $this->show($craft, '53', 'Flights/noise.html.twig', new LogSheetView(
            $this->book->of($craft), $log, $beside, $report, null === $beside ? [] : $this->analyses->report($beside),
            null === $log || null === $beside ? [] : LogBook::difference($beside, $log), $findings, $answer, $this->book->passages($log), $passage,
        ));
    }

    /** Curves and report of a log, as the sheets draw them. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/analysis.json', name: 'log_analysis', methods: ['GET'])]
    public function analysis(string $slug, int $id, Request $request): Response
    {
        $log = $this->book->one($this->crafts->named($slug), $id);

        return new Response($this->analyses->text($log, $this->book->passage($log, $request->query->getInt('passage'))), 200, ['Content-Type' => 'application/json']);
    }
}
