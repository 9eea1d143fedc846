<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Ortholex\Core\Analysis\AnalysisCharts;
use Ortholex\Core\Analysis\LoopModel;
use Ortholex\Core\Analysis\StepAnalysis;
use Ortholex\Core\Analysis\StepRanking;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\SignalError;
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

    public function __construct(private readonly LogBook $book, private readonly AnalysisStore $analyses, private readonly LogStore $store, private readonly EntityManagerInterface $entities)
    {
    }

    #[Route('/craft/{slug}/54', name: 'response', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $besides = null === $log ? [] : $this->book->besides($craft, $request, self::MOST_BESIDE);
        $passage = $this->book->passage($log, $request->query->getInt('passage'));
        $report = null === $log ? [] : $this->analyses->report($log, $passage);
        $others = array_map($this->analyses->report(...), $besides);
        $ranked = [];
        if (null !== $log && [] !== $besides) {
            $all = [$log->code => $report] + array_combine(array_map(static fn (Log $l): string => $l->code, $besides), $others);
            foreach (Traces::AXES as $axis) {
                $ranked[$axis] = StepRanking::of(array_map(static function (array $r) use ($axis): array {
                    $step = Dig::map($r, 'step', $axis);
                    $interval = Dig::numbers(Dig::map($step, 'intervals'), 'error_ms');

                    return ['error_ms' => Dig::number($step, 'error_ms'), 'interval' => 2 === \count($interval) ? [$interval[0], $interval[1]] : null, 'grade' => Dig::text($step, 'grade')];
                }, $all));
            }
        }
        [$answer, $findings] = null === $log ? ['No log yet, so nothing is known of the response.', []] : ResponseFindings::of($report, $others[0] ?? [], $besides[0]->code ?? null);

        return $this->show($craft, '54', 'Flights/response.html.twig', new LogSheetView(
            $this->book->of($craft), $log, $besides, $report, $others,
            null === $log ? [] : LogBook::differences($besides, $log), $findings, \count($besides) > 1 ? ResponseFindings::ranking($ranked) : $answer, $this->book->passages($log), $passage, $ranked, $request->query->getString('axis'),
        ));
    }

    /** One window of the step: what was asked, what the craft did, and the step that it alone would show. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/windows/{axis<roll|pitch|yaw>}/{number<\d+>}.json', name: 'step_window', methods: ['GET'])]
    public function window(string $slug, int $id, string $axis, int $number, Request $request): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $step = Dig::map($this->analyses->charts($log, $this->book->passage($log, $request->query->getInt('passage'))), 'step', $axis);
        $window = Dig::map($step, 'windows')[$number] ?? null;
        $at = \is_array($window) ? Dig::number($window, 'at_s') : null;
        if (null === $at) {
            throw BadRequest::at('number', 'There is no such window; the step of '.$axis.' has '.\count(Dig::map($step, 'windows')).'.');
        }
        $first = $log->sampleAt($at);
        $count = (int) round((Dig::number($step, 'window_s') ?? 2.0) * $log->rateHz);
        $rate = \in_array("rate_measured_{$axis}_dps", $log->traces, true) ? "rate_measured_{$axis}_dps" : "rate_filtered_{$axis}_dps";
        $frame = StepAnalysis::window($this->store->samples($id, "setpoint_{$axis}_dps", $first, $count), $this->store->samples($id, $rate, $first, $count), $log->rateHz, LoopModel::known(Dig::map($step, 'loop')), Dig::numbers($step, 'noise'), Dig::number($step, 'band_hz') ?? 20.0);

        return new JsonResponse([
            'at_s' => $at, 'rate_hz' => $frame->rateHz, 'setpoint' => AnalysisCharts::rounded($frame->setpoint, 1), 'rate' => AnalysisCharts::rounded($frame->rate, 1),
            'step_ms' => $frame->curve->stepS * 1e3, 'curve' => AnalysisCharts::rounded($frame->curve->values, 4), 'own_share' => round($frame->ownShare, 3),
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
            throw BadRequest::at('medium', 'Give two rates in deg/s, the second above the first: a move is small up to the first, medium up to the second.');
        }
        $passage = $this->book->passage($log, $request->query->getInt('passage'));
        $by = [];
        foreach (Traces::AXES as $axis) {
            $rate = \in_array("rate_measured_{$axis}_dps", $log->traces, true) ? "rate_measured_{$axis}_dps" : "rate_filtered_{$axis}_dps";
            $flight = $this->store->load($log, ["setpoint_{$axis}_dps", $rate]);
            $flight = null === $passage ? $flight : $flight->between($passage->fromS, $passage->toS);
            try {
                $by[$axis] = $flight->has($rate) && $flight->has("setpoint_{$axis}_dps") ? StepAnalysis::sizes($flight->runs("setpoint_{$axis}_dps"), $flight->runs($rate), $log->rateHz, [(float) $small, (float) $medium]) : [];
            } catch (SignalError) {
                // No window of this axis can be used: its row is left out, and the sheet says why elsewhere.
                $by[$axis] = [];
            }
        }

        return $this->piece('Flights/_sizes.html.twig', ['by' => $by]);
    }

    /** Strikes a window out of the step of its axis, or takes it back in. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/strike', name: 'step_strike', methods: ['POST'])]
    public function strike(string $slug, int $id, Request $request): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $input = Input::of($request);
        $axis = $input->text('axis', 10);
        $at = $input->text('at', 30);
        if (!\in_array($axis, Traces::AXES, true) || !is_numeric($at)) {
            throw BadRequest::at('at', 'Name the axis, and the beginning of the window in seconds.');
        }
        $struck = array_values(array_filter($log->struck[$axis] ?? [], static fn (float $s): bool => abs($s - (float) $at) > 1e-3));
        if ($input->flag('out')) {
            $struck[] = round((float) $at, 4);
            sort($struck);
        }
        $log->struck = [$axis => $struck] + $log->struck;
        $this->entities->flush();

        return new JsonResponse(['said' => $input->flag('out') ? 'Struck out; the step is reckoned without it.' : 'Taken back in.', 'struck' => $struck]);
    }
}
