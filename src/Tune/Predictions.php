<?php

declare(strict_types=1);

namespace Ortholex\App\Tune;

use Ortholex\App\Craft\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Record\Staging;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Step\StepOutcome;
use Ortholex\Core\Tuning\GainAdvice;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\LoopPrediction;

/** What a log says of gains it was not flown with: the predicted step of the staged ones, and a proposal. */
final readonly class Predictions
{
    public function __construct(private AnalysisStore $analyses, private Staging $staging, private Chains $chains, private Words $words)
    {
    }

    /**
     * Peaks of the step, as flown and as staged, of the axes whose gains are staged; by the newest log that can tell.
     *
     * @return array<string, array{from: float, to: float}> by axis
     */
    public function peaks(Craft $craft): array
    {
        $staged = $this->staging->of($craft)->names();
        $axes = array_filter(
            ['roll', 'pitch', 'yaw'],
            static fn (string $a): bool => [] !== preg_grep("~^gain\\.$a\\.(p|i|d|ff)$~", $staged),
        );
        $log = [] === $axes ? null : $this->chains->newest($craft);
        $peaks = [];
        foreach (null === $log ? [] : $this->of($craft, $log) as $axis => $one) {
            if (\in_array($axis, $axes, true) && \is_array($one) && true === ($one['stable'] ?? false)) {
                $from = $one['measured_peak'] ?? null;
                $to = $one['predicted_peak'] ?? null;
                if (\is_float($from) && \is_float($to)) {
                    $peaks[$axis] = ['from' => $from, 'to' => $to];
                }
            }
        }

        return $peaks;
    }

    /** @return array<string, mixed> per axis: measured, predicted, proposal; and a sentence why where there is none */
    public function of(Craft $craft, Log $log): array
    {
        $charts = $this->analyses->charts($log);
        $report = $this->analyses->report($log);
        $flown = $log->settings;
        $wanted = $this->chains->current($craft, $this->staging->preview($craft));
        $rotorHz = $this->chains->rotorHz($craft, $log);
        $axes = [];
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $plant = $charts->plants[$axis] ?? null;
            $measured = ($charts->steps[$axis] ?? null)?->toArray() ?? [];
            $peak = ($report->steps[$axis] ?? null)?->numbers?->peak;
            if (null === $plant || !$flown->has("gain.$axis.p")) {
                $axes[$axis] = [
                    'why' => null === $plant
                            ? 'The log moved this axis too little, or lacks the terms of the command.'
                            : 'The log does not say with which gains it was flown.',
                ];
                continue;
            }
            $wantedFilters = $this->chains->filters($wanted, $rotorHz);
            $gains = GainSet::ofAxis($wanted, Axis::from($axis));
            $predicted = LoopPrediction::of($plant, $gains, $wantedFilters);
            $flownFilters = $this->chains->filters($flown, $rotorHz);
            $check = LoopPrediction::of($plant, GainSet::ofAxis($flown, Axis::from($axis)), $flownFilters)->curve->numbers();
            $advice = null === $peak ? null : GainAdvice::from($plant, GainSet::ofAxis($flown, Axis::from($axis)), $flownFilters, $peak);
            $axes[$axis] = [
                'measured_peak' => $peak,
                'verdict' => null === $peak ? null : $this->words->of(StepOutcome::ofPeak($peak)),
                'modelled_peak' => round($check->peak, 3),
                'same_gains' => $gains == GainSet::ofAxis($flown, Axis::from($axis)),
                'step_ms' => 1.0,
                'predicted' => array_map(static fn (float $v): float => round($v, 4), $predicted->curve->values),
                'stable' => $predicted->isStable(),
                'numbers' => $predicted->curve->numbers()->toArray(),
                'predicted_peak' => $predicted->curve->numbers()->peak,
                'proposal' => null === $advice
                        ? null
                        : [
                            'p' => $advice->gains->p,
                            'd' => $advice->gains->d,
                            'from_p' => GainSet::ofAxis($flown, Axis::from($axis))->p,
                            'from_d' => GainSet::ofAxis($flown, Axis::from($axis))->d,
                            'peak' => round($advice->after->curve->numbers()->peak, 3),
                            'delay_ms' => $advice->after->curve->numbers()->delayMs,
                            'noise' => round($advice->after->noiseGain / max(1e-9, $advice->before->noiseGain), 2),
                        ],
                'measured' => $measured,
            ];
        }

        return $axes;
    }
}
