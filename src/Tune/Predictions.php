<?php

declare(strict_types=1);

namespace Ortholex\App\Tune;

use Ortholex\App\Craft\Craft;
use Ortholex\App\Flights\AnalysisStore;
use Ortholex\App\Flights\Dig;
use Ortholex\App\Flights\Log;
use Ortholex\App\Record\Staging;
use Ortholex\Core\Analysis\AxisPlant;
use Ortholex\Core\Analysis\GainAdvice;
use Ortholex\Core\Analysis\GainSet;
use Ortholex\Core\Analysis\LoopPrediction;
use Ortholex\Core\Analysis\StepVerdict;

/** What a log says of gains it was not flown with: the predicted step of the staged ones, and a proposal. */
final readonly class Predictions
{
    public function __construct(private AnalysisStore $analyses, private Staging $staging, private Chains $chains)
    {
    }

    /**
     * Peaks of the step, as flown and as staged, of the axes whose gains are staged; by the newest log that can tell.
     *
     * @return array<string, array{from: float, to: float}> by axis
     */
    public function peaks(Craft $craft): array
    {
        $staged = array_keys($this->staging->of($craft));
        $axes = array_filter(['roll', 'pitch', 'yaw'], static fn (string $a): bool => [] !== preg_grep("~^gain\\.$a\\.(p|i|d|ff)$~", $staged));
        $log = [] === $axes ? null : $this->chains->newest($craft);
        $peaks = [];
        foreach (null === $log ? [] : $this->of($craft, $log) as $axis => $one) {
            if (\in_array($axis, $axes, true) && \is_array($one) && true === ($one['stable'] ?? false)) {
                $from = Dig::number($one, 'measured_peak');
                $to = Dig::number(Dig::map($one, 'numbers'), 'peak');
                if (null !== $from && null !== $to) {
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
            $plantData = Dig::map($charts, 'plant', $axis);
            $measured = Dig::map($charts, 'step', $axis);
            $peak = Dig::number(Dig::map($report, 'step', $axis), 'peak');
            if ([] === $plantData || !isset($flown["gain.$axis.p"])) {
                $axes[$axis] = ['why' => [] === $plantData ? 'The log moved this axis too little, or lacks the terms of the command.' : 'The log does not say with which gains it was flown.'];
                continue;
            }
            $n = static fn (string $key): float => Dig::number($plantData, $key) ?? 0.0;
            $plant = AxisPlant::known($n('gain'), $n('lag_s'), $n('dead_s'), $n('misfit'));
            $wantedFilters = $this->chains->filters($wanted, $rotorHz);
            $gains = GainSet::ofAxis($wanted, $axis);
            $predicted = LoopPrediction::of($plant, $gains, $wantedFilters);
            $flownFilters = $this->chains->filters($flown, $rotorHz);
            $check = LoopPrediction::of($plant, GainSet::ofAxis($flown, $axis), $flownFilters)->curve->numbers();
            $advice = null === $peak ? null : GainAdvice::from($plant, GainSet::ofAxis($flown, $axis), $flownFilters, $peak);
            $axes[$axis] = [
                'measured_peak' => $peak,
                'verdict' => null === $peak ? null : StepVerdict::of($peak),
                'modelled_peak' => round($check['peak'], 3),
                'same_gains' => $gains == GainSet::ofAxis($flown, $axis),
                'step_ms' => 1.0,
                'predicted' => array_map(static fn (float $v): float => round($v, 4), $predicted->curve->values),
                'stable' => $predicted->isStable(),
                'numbers' => $predicted->curve->numbers(),
                'proposal' => null === $advice ? null : [
                    'p' => $advice->gains->p, 'd' => $advice->gains->d, 'from_p' => GainSet::ofAxis($flown, $axis)->p, 'from_d' => GainSet::ofAxis($flown, $axis)->d,
                    'peak' => round($advice->after->curve->numbers()['peak'], 3), 'delay_ms' => $advice->after->curve->numbers()['delay_ms'],
                    'noise' => round($advice->after->noiseGain / max(1e-9, $advice->before->noiseGain), 2),
                ],
                'measured' => $measured,
            ];
        }

        return $axes;
    }
}
