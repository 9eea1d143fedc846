<?php

declare(strict_types=1);

namespace Ortholex\App\Response;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\LogSheetView;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\LoopModel;
use Ortholex\Core\Step\StepAnalysis;
use Ortholex\Core\Step\StepRanking;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class ResponseController extends SheetController
{
    /** Curves beside the one: more nobody tells apart. */
    private const MOST_BESIDE = 5;

    public function __construct(
        private readonly LogBook $book,
        private readonly AnalysisStore $analyses,
        private readonly LogStore $store,
        private readonly EntityManagerInterface $entities,
        private readonly ResponseFindings $findings,
    ) {
    }

    #[Route('/craft/{slug}/54', name: 'response', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $besides = null === $log ? [] : $this->book->besides($craft, $request, self::MOST_BESIDE);
        $passage = $this->book->passage($log, $request->query->getInt('passage'));
        $report = null === $log ? null : $this->analyses->report($log, $passage);
        $others = array_map($this->analyses->report(...), $besides);
        $ranked = [];
        if (null !== $log && null !== $report && [] !== $besides) {
            $all = [$log->code => $report] + array_combine(array_map(static fn (Log $l): string => $l->code, $besides), $others);
            foreach (Axis::cases() as $axis) {
                $ranked[$axis->value] = StepRanking::of(
                    array_map(
                        static fn (Report $r): array => [
                            'error_ms' => $r->step($axis)?->numbers?->errorMs,
                            'interval' => $r->step($axis)->intervals['error_ms'] ?? null,
                            'grade' => $r->step($axis)->confidence->grade ?? Grade::None,
                        ],
                        $all,
                    ),
                );
            }
        }
        [$answer, $findings] =
            null === $report
                ? ['No log yet, so nothing is known of the response.', []]
                : $this->findings->of($report, $others[0] ?? null, $besides[0]->code ?? null);

        return $this->show(
            $craft,
            '54',
            'Response/response.html.twig',
            new LogSheetView(
                $this->book->of($craft),
                $log,
                $besides,
                $report,
                $others,
                null === $log ? [] : LogBook::differences($besides, $log),
                $findings,
                \count($besides) > 1 ? ResponseFindings::ranking($ranked) : $answer,
                $this->book->passages($log),
                $passage,
                $ranked,
                $request->query->getString('axis'),
            ),
        );
    }

    /** One window of the step: what was asked, what the craft did, and the step that it alone would show. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/windows/{axis<roll|pitch|yaw>}/{number<\d+>}.json', name: 'step_window', methods: ['GET'])]
    public function window(string $slug, int $id, string $axis, int $number, Request $request): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $on = Axis::from($axis);
        $step = $this->analyses->charts($log, $this->book->passage($log, $request->query->getInt('passage')))->steps[$axis] ?? null;
        $at = ($step->windows[$number] ?? null)?->atS;
        if (null === $step || null === $at) {
            throw BadRequest::at('number', "There is no such window; the step of $axis has ".\count($step->windows ?? []).'.');
        }
        $first = $log->sampleAt($at);
        $count = (int) round($step->windowS * $log->rateHz);
        $rate = (string) Traces::rateOfRotation($log->traces, $on);
        $frame = StepAnalysis::window(
            $this->store->samples($id, Traces::setpoint($on), $first, $count),
            $this->store->samples($id, $rate, $first, $count),
            $log->rateHz,
            LoopModel::known($step->loop),
            $step->noise,
            $step->bandHz,
        );

        return new JsonResponse([
            'at_s' => $at,
            'rate_hz' => $frame->rateHz,
            'setpoint' => Charts::rounded($frame->setpoint, 1),
            'rate' => Charts::rounded($frame->rate, 1),
            'step_ms' => $frame->curve->stepS * 1e3,
            'curve' => Charts::rounded($frame->curve->values, 4),
            'largest_dps' => round($frame->largestDps(), 1),
            'own_share' => round($frame->ownShare, 3),
        ]);
    }

    /** Small, medium and large moves, with limits of one's own; a piece of the sheet. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/sizes', name: 'step_sizes', methods: ['GET'])]
    public function sizes(string $slug, int $id, Request $request): Response
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $small = $request->query->getString('small');
        $medium = $request->query->getString('medium');
        if (!is_numeric($small) || !is_numeric($medium) || (float) $small <= 0 || (float) $medium <= (float) $small) {
            throw BadRequest::at(
                'medium',
                'Give two rates in deg/s, the second above the first: a move is small up to the first, medium up to the second.',
            );
        }
        $passage = $this->book->passage($log, $request->query->getInt('passage'));
        $by = [];
        foreach (Axis::cases() as $axis) {
            $rate = Traces::rateOfRotation($log->traces, $axis);
            $set = Traces::setpoint($axis);
            $flight = $this->store->load($log, array_values(array_filter([$set, $rate])));
            $flight = null === $passage ? $flight : $flight->between($passage->fromS, $passage->toS);
            try {
                $by[$axis->value] =
                    null !== $rate && $flight->has($set)
                        ? StepAnalysis::sizes($flight->runs($set), $flight->runs($rate), $log->rateHz, [(float) $small, (float) $medium])
                        : [];
            } catch (SignalError) {
                // No window of this axis can be used: its row is left out, and the sheet says why elsewhere.
                $by[$axis->value] = [];
            }
        }

        return $this->piece('Response/sizes.html.twig', ['by' => $by]);
    }

    /** Strikes a window out of the step of its axis, or takes it back in. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/strike', name: 'step_strike', methods: ['POST'])]
    public function strike(string $slug, int $id, Request $request): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $input = Input::of($request);
        $axis = $input->text('axis', 10);
        $at = $input->text('at', 30);
        if (null === Axis::tryFrom($axis) || !is_numeric($at)) {
            throw BadRequest::at('at', 'Name the axis, and the beginning of the window in seconds.');
        }
        $struck = array_values(array_filter($log->struck[$axis] ?? [], static fn (float $s): bool => abs($s - (float) $at) > 1e-3));
        if ($input->flag('out')) {
            $struck[] = round((float) $at, 4);
            sort($struck);
        }
        $log->struck = [$axis => $struck] + $log->struck;
        $this->entities->flush();

        return Answer::of([
            'said' => $input->flag('out') ? 'Excluded; the step is reckoned without it.' : 'Included again.',
            'struck' => $struck,
        ]);
    }
}
