<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\SignalError;

/** The loop of one axis under some settings: margins, step, what a push does. */
final readonly class LoopReport
{
    /** @param list<float> $rotorHz where motor notches stand */
    private function __construct(
        private AxisPlant $plant,
        private Axis $axis,
        private float $loopHz,
        private array $rotorHz,
        public LoopMargins $margins,
        public LoopPrediction $prediction,
        public Disturbance $disturbance,
    ) {
    }

    /** @return self|null null where the log does not tell how the axis answers its command */
    public static function of(FlightLog $log, Axis $axis, SettingSet $set): ?self
    {
        try {
            $plant = AxisPlant::in($log, $axis);
        } catch (SignalError) {
            return null;
        }
        $rotorHz = [];
        foreach ($log->places() as $place) {
            if ($log->has("rpm_$place")) {
                $rpm = $log->trace("rpm_$place");
                $rotorHz[] = array_sum($rpm) / max(1, \count($rpm)) / 60;
            }
        }
        $loopHz = max($log->clock->rateHz, $set->number('motors.loop_rate_hz', (float) ($log->setting('motors.loop_rate_hz') ?? 0)));

        return null === $plant ? null : self::under($plant, $axis, $set, $loopHz, $rotorHz);
    }

    /** @param list<float> $rotorHz */
    public static function under(AxisPlant $plant, Axis $axis, SettingSet $set, float $loopHz, array $rotorHz): self
    {
        $filters = RateFilters::of($set, $loopHz, $rotorHz);
        $gains = GainSet::ofAxis($set, $axis);

        return new self(
            $plant,
            $axis,
            $loopHz,
            $rotorHz,
            LoopMargins::of($plant, $gains, $filters),
            LoopPrediction::of($plant, $gains, $filters),
            Disturbance::of($plant, $gains, $filters),
        );
    }

    public function with(SettingSet $set): self
    {
        return self::under($this->plant, $this->axis, $set, $this->loopHz, $this->rotorHz);
    }

    /** @return array<string, mixed> margins as numbers, null where there is none; where it oscillates, no step and no modulus margin */
    public function toArray(): array
    {
        $numbers = $this->prediction->curve->numbers();
        $stable = $this->prediction->isStable();
        $round = static fn (?float $v, int $digits): ?float => null === $v ? null : round($v, $digits);

        return [
            'gain_margin_db' => $round($this->margins->gainDb, 3),
            'phase_margin_deg' => $round($this->margins->phaseDeg, 2),
            'modulus_margin' => $stable ? round($this->margins->modulus, 4) : 0.0,
            'crossover_hz' => $round($this->margins->crossoverHz, 3),
            'stable' => $stable,
            'step' => [
                'delay_ms' => $stable ? $round($numbers->delayMs, 3) : null,
                'rise_ms' => $stable ? $round($numbers->riseMs, 3) : null,
                'peak' => $stable ? round($numbers->peak, 4) : null,
            ],
            'push' => [
                'peak_dps' => $stable ? round($this->disturbance->peakDps, 3) : null,
                'half_ms' => $stable ? $this->disturbance->halfMs : null,
            ],
        ];
    }
}
