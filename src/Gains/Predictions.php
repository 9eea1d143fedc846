<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\Chains;
use Ortholex\App\Report\WorkedOut;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Words\Words;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Step\StepOutcome;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\GainAdvice;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\LoopPrediction;

/**
 * What a log says of gains it was not flown with: the predicted step of the staged ones, and a proposal.
 *
 * @phpstan-type Proposal array{p: float, d: float, from_p: float, from_d: float, peak: float, delay_ms: float|null, noise: float}
 * @phpstan-type Told array{measured_peak: float|null, verdict: string|null, modelled_peak: float,
 *     same_gains: bool, step_ms: float, predicted: list<float>, stable: bool, numbers: array<string, mixed>, predicted_peak: float,
 *     proposal: Proposal|null, measured: array<string, mixed>}
 * @phpstan-type AxisPrediction array{why: string}|Told
 */
final readonly class Predictions
{
    public function __construct(
        private AnalysisStore $analyses,
        private Staging $staging,
        private Chains $chains,
        private CurrentNames $names,
        private Words $words,
        private WorkedOut $workedOut,
    ) {
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

    /** @return array<string, AxisPrediction> per axis: measured, predicted, proposal; and a sentence why where there is none */
    public function of(Craft $craft, Log $log): array
    {
        $wanted = $this->names->of($craft, $this->staging->preview($craft));
        $from = [FlightAnalysis::VERSION, $log->sha256, $log->struck, $log->turned, $log->settings, $wanted, $craft->settings];

        return $this->workedOut->once('predictions', $from, fn (): array => $this->axes($craft, $log, $wanted));
    }

    /** @return array<string, AxisPrediction> */
    private function axes(Craft $craft, Log $log, SettingSet $wanted): array
    {
        $charts = $this->analyses->charts($log);
        $report = $this->analyses->report($log);
        $flown = $log->settings;
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
            $of = Axis::from($axis);
            $axes[$axis] = $this->told(
                $plant,
                GainSet::ofAxis($wanted, $of),
                $this->chains->filters($wanted, $rotorHz),
                GainSet::ofAxis($flown, $of),
                $this->chains->filters($flown, $rotorHz),
                $peak,
            ) + [
                'verdict' => null === $peak ? null : $this->words->of(StepOutcome::ofPeak($peak)),
                'measured' => $measured,
            ];
        }

        return $axes;
    }

    /**
     * @return array{measured_peak: float|null, modelled_peak: float, same_gains: bool, step_ms: float, predicted: list<float>,
     *     stable: bool, numbers: array<string, mixed>, predicted_peak: float, proposal: Proposal|null}
     */
    private function told(
        AxisPlant $plant,
        GainSet $wanted,
        RateFilters $wantedFilters,
        GainSet $flown,
        RateFilters $flownFilters,
        ?float $peak,
    ): array {
        return $this->workedOut->once('prediction', \func_get_args(), static function () use (
            $plant,
            $wanted,
            $wantedFilters,
            $flown,
            $flownFilters,
            $peak,
        ): array {
            $predicted = LoopPrediction::of($plant, $wanted, $wantedFilters);
            $numbers = $predicted->curve->numbers();
            $check = LoopPrediction::of($plant, $flown, $flownFilters)->curve->numbers();
            $advice = null === $peak ? null : GainAdvice::from($plant, $flown, $flownFilters, $peak);

            return [
                'measured_peak' => $peak,
                'modelled_peak' => round($check->peak, 3),
                'same_gains' => $wanted == $flown,
                'step_ms' => 1.0,
                'predicted' => array_map(static fn (float $v): float => round($v, 4), $predicted->curve->values),
                'stable' => $predicted->isStable(),
                'numbers' => $numbers->toArray(),
                'predicted_peak' => $numbers->peak,
                'proposal' => null === $advice
                        ? null
                        : [
                            'p' => $advice->gains->p,
                            'd' => $advice->gains->d,
                            'from_p' => $flown->p,
                            'from_d' => $flown->d,
                            'peak' => round($advice->after->curve->numbers()->peak, 3),
                            'delay_ms' => $advice->after->curve->numbers()->delayMs,
                            'noise' => round($advice->after->noiseGain / max(1e-9, $advice->before->noiseGain), 2),
                        ],
            ];
        });
    }
}
