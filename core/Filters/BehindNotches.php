<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Core\Signal\Statistics;

/**
 * What of a log's measured rate is behind the notches of a chain: all that low-passes, gains and the D path need to be judged, so that
 * these can be tried again and again without the log.
 *
 * @phpstan-type Behind array{measured: Spectrum, left: Spectrum, measured_dps: float, delay_s: float}
 */
final readonly class BehindNotches
{
    private const SPREAD_EVERY = 50;
    private const TURNS_HZ = 20.0;

    /**
     * @param array<string, Behind> $axes   by axis; those whose measured rate was logged
     * @param list<Fact>            $doubts
     * @param array{float, float}|null $rotorHz between which speeds the motors turned nearly all the time; null where that was not logged
     */
    private function __construct(
        public array $axes,
        public array $doubts,
        public float $loopHz,
        public float $logHz,
        public ?array $rotorHz,
    ) {
    }

    /** @param SettingSet $chain what it leaves out is off */
    public static function of(FlightLog $log, SettingSet $chain): self
    {
        $logHz = $log->clock->rateHz;
        $loopHz = WhatIf::loopHz($log, $chain);
        $moving = MovingNotches::of($chain, $loopHz);
        $rotors = WhatIf::rotors($log);
        $doubts = self::doubts($log, $moving, [] !== $rotors, $loopHz);
        $axes = [];
        foreach (Axis::cases() as $axis) {
            $name = Traces::measuredRate($axis);
            if (!$log->has($name)) {
                continue;
            }
            $left = $tracked = [];
            $runs = $log->runs($name);
            $lengths = array_map(count(...), $runs);
            foreach ($moving->areOff() ? [] : $runs as $r => $run) {
                [$left[], $tracked[]] = $moving->run($run, array_column($rotors, $r), $logHz);
            }
            try {
                $before = AxisSpectrum::of($runs, $logHz);
                $axes[$axis->value] = [
                    'measured' => $before->spectrum,
                    'left' => [] === $left ? $before->spectrum : AxisSpectrum::of($left, $logHz)->spectrum,
                    'measured_dps' => $before->rmsDps,
                    'delay_s' => DelaySeen::in($lengths, $logHz)->of($moving, $rotors, $tracked, $lengths),
                ];
            } catch (SignalError) {
                $doubts[] = Fact::of(WhatIfDoubt::TooShort, axis: $axis);
            }
        }

        return new self($axes, $doubts, $loopHz, $logHz, self::spread($rotors));
    }

    /**
     * @param list<list<list<float>>> $rotors
     *
     * @return array{float, float}|null
     */
    private static function spread(array $rotors): ?array
    {
        $some = [];
        foreach ($rotors as $runs) {
            foreach ($runs as $run) {
                for ($i = 0, $n = \count($run); $i < $n; $i += self::SPREAD_EVERY) {
                    if ($run[$i] > self::TURNS_HZ) {
                        $some[] = $run[$i];
                    }
                }
            }
        }

        return [] === $some ? null : [Statistics::quantile($some, 0.05), Statistics::quantile($some, 0.95)];
    }

    /** @return list<Fact> */
    private static function doubts(FlightLog $log, MovingNotches $moving, bool $hasSpeeds, float $loopHz): array
    {
        $doubts = [Fact::of(WhatIfDoubt::OpenLoop)];
        foreach (Axis::cases() as $axis) {
            if (!$log->has(Traces::measuredRate($axis))) {
                $doubts[] = Fact::of(WhatIfDoubt::NoMeasuredRate, axis: $axis);
            }
        }
        if ($log->clock->rateHz < 0.99 * $loopHz) {
            $doubts[] = Fact::of(WhatIfDoubt::SlowLog, log_hz: $log->clock->rateHz, loop_hz: $loopHz, half_hz: $log->clock->rateHz / 2);
        }
        if ([] !== $moving->orders && !$hasSpeeds) {
            $doubts[] = Fact::of(WhatIfDoubt::NoSpeeds);
        }

        return $doubts;
    }
}
