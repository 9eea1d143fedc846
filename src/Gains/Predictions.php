<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\Chains;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\Report\WorkedOut;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Words\Words;
use Ortholex\Core\Control\GainSetB;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Step\StepCurve;
use Ortholex\Core\Step\StepOutcome;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\GainTuner;
use Ortholex\Core\Tuning\LoopPrediction;

/**
 * What a log says of gains it was not flown with: the predicted step of the staged ones, and a proposal.
 *
 * @phpstan-type Proposal array{p: float, i: float, d: float, from_p: float, from_i: float, from_d: float, peak: float,
 *     delay_ms: float|null, modulus: float, noise: float, step: list<float>}
 * @phpstan-type Told array{measured_peak: float|null, verdict: string|null, modelled_peak: float, modelled_stable: bool,
 *     standing: string, step_ms: float, predicted: list<float>, stable: bool, numbers: array<string, mixed>, predicted_peak: float,
 *     proposal: Proposal|null, measured: array<string, mixed>}
 * @phpstan-type AxisPrediction array{why: string}|Told
 */
final readonly class Predictions
{
    public function __construct(
        private AnalysisStore $analyses,
        private Staging $staging,
        private JudgedLog $judged,
        private Chains $chains,
        private CurrentNames $names,
        private Words $words,
        private WorkedOut $workedOut,
    ) {
    }

    /**
     * What the log that is judged by says of the axes that something is staged for; nothing where it cannot tell.
     *
     * @return array{string, array<string, Told>} code of the log, and its predictions by axis
     */
    public function ofStaged(Craft $craft): array
    {
        $log = $this->staging->of($craft)->isEmpty() ? null : $this->judged->of($craft);
        $told = [];
        foreach (null === $log ? [] : $this->of($craft, $log) as $axis => $one) {
            if (isset($one['standing']) && Standing::AsStaged->value === $one['standing']) {
                $told[$axis] = $one;
            }
        }

        return [$log->code ?? '', $told];
    }

    /**
     * @param bool $setB whether it is asked of the other set of gains
     *
     * @return array<string, AxisPrediction> per axis: measured, predicted, proposal; and a sentence why where there is none
     */
    public function of(Craft $craft, Log $log, bool $setB = false): array
    {
        $of = static fn (SettingSet $set): SettingSet => $setB ? GainSetB::applied($set) : $set;
        $wanted = $of($this->names->of($craft, $this->staging->preview($craft)));
        $now = $of($this->names->of($craft, $craft->settings));
        $from = [FlightAnalysis::VERSION, $log->sha256, $log->struck, $log->turned, $log->settings, $wanted, $now];

        return $this->workedOut->once('predictions', $from, fn (): array => $this->axes($craft, $log, $wanted, $now));
    }

    /** @return array<string, AxisPrediction> */
    private function axes(Craft $craft, Log $log, SettingSet $wanted, SettingSet $now): array
    {
        $charts = $this->analyses->charts($log);
        $report = $this->analyses->report($log);
        $flown = $log->settings;
        $rotorHz = $this->chains->rotorHz($craft, $log);
        $filters = array_map(fn (SettingSet $s): RateFilters => $this->chains->filters($s, $rotorHz), [$wanted, $flown, $now]);
        $axes = [];
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $plant = $charts->plants[$axis] ?? null;
            $measured = ($charts->steps[$axis] ?? null)?->toArray() ?? [];
            $peak = ($report->steps[$axis] ?? null)?->numbers?->peak;
            if (null === $plant || !$flown->has("gain.$axis.p")) {
                $axes[$axis] = [
                    'why' => null === $plant
                            ? 'The log moved this axis too little, or lacks the terms of the command.'
                            : 'The log does not say with which gains it was flown. Say it on its front (51).',
                ];
                continue;
            }
            $of = Axis::from($axis);
            $gains = array_map(static fn (SettingSet $s): GainSet => GainSet::ofAxis($s, $of), [$wanted, $flown, $now]);
            $axes[$axis] = $this->told($plant, $gains[0], $filters[0], $gains[1], $filters[1], $peak, Axis::Yaw !== $of) + [
                'standing' => match (true) {
                    $gains[0] == $gains[1] && $filters[0] == $filters[1] => Standing::AsFlown->value,
                    $gains[0] == $gains[2] && $filters[0] == $filters[2] => Standing::AsItStands->value,
                    default => Standing::AsStaged->value,
                },
                'verdict' => null === $peak ? null : $this->words->of(StepOutcome::ofPeak($peak)),
                'measured' => $measured,
            ];
        }

        return $axes;
    }

    /**
     * @return array{measured_peak: float|null, modelled_peak: float, modelled_stable: bool, step_ms: float, predicted: list<float>,
     *     stable: bool, numbers: array<string, mixed>, predicted_peak: float, proposal: Proposal|null}
     */
    private function told(
        AxisPlant $plant,
        GainSet $wanted,
        RateFilters $wantedFilters,
        GainSet $flown,
        RateFilters $flownFilters,
        ?float $peak,
        bool $withD,
    ): array {
        return $this->workedOut->once('prediction', \func_get_args(), static function () use (
            $plant,
            $wanted,
            $wantedFilters,
            $flown,
            $flownFilters,
            $peak,
            $withD,
        ): array {
            $predicted = LoopPrediction::of($plant, $wanted, $wantedFilters);
            $numbers = $predicted->curve->numbers();
            $check = LoopPrediction::of($plant, $flown, $flownFilters);
            $advice = null === $peak ? null : GainTuner::advise($plant, $flown, $flownFilters, $peak, $withD);

            return [
                'measured_peak' => $peak,
                'modelled_peak' => round($check->curve->numbers()->peak, 3),
                'modelled_stable' => $check->isStable(),
                'step_ms' => 1.0,
                'predicted' => self::curve($predicted->curve),
                'stable' => $predicted->isStable(),
                'numbers' => $numbers->toArray(),
                'predicted_peak' => $numbers->peak,
                'proposal' => null === $advice
                        ? null
                        : [
                            'p' => $advice->gains->p,
                            'i' => $advice->gains->i,
                            'd' => $advice->gains->d,
                            'from_p' => $flown->p,
                            'from_i' => $flown->i,
                            'from_d' => $flown->d,
                            'peak' => round($advice->prediction->curve->numbers()->peak, 3),
                            'delay_ms' => $advice->prediction->curve->numbers()->delayMs,
                            'modulus' => round($advice->margins->modulus, 3),
                            'noise' => round($advice->prediction->noiseGain / max(1e-9, $check->noiseGain), 2),
                            'step' => self::curve($advice->prediction->curve),
                        ],
            ];
        });
    }

    /** @return list<float> */
    private static function curve(StepCurve $curve): array
    {
        return array_map(static fn (float $v): float => round($v, 4), $curve->values);
    }
}
