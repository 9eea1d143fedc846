<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Ortholex\App\Shell\SheetController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class ResponseController extends SheetController
{
    public function __construct(private readonly LogBook $book, private readonly AnalysisStore $analyses)
    {
    }

    #[Route('/craft/{slug}/54', name: 'response', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $beside = $request->query->getInt('beside') > 0 ? $this->book->one($craft, $request->query->getInt('beside')) : null;
        $passage = $this->book->passage($log, $request->query->getInt('passage'));
        $report = null === $log ? [] : $this->analyses->report($log, $passage);
        $other = null === $beside ? [] : $this->analyses->report($beside);
        [$answer, $findings] = null === $log ? ['No log yet, so nothing is known of the response.', []] : ResponseFindings::of($report, $other, $beside?->code);

        return $this->show($craft, '54', 'Flights/response.html.twig', new LogSheetView(
            $this->book->of($craft), $log, $beside, $report, $other,
            null === $log || null === $beside ? [] : LogBook::difference($beside, $log), $findings, $answer, $this->book->passages($log), $passage,
        ));
    }
}
