<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\LoopMargins;

/**
 * How a craft would shake otherwise because other filters make another loop of it: what shakes it from outside comes through
 * 1/(1 + L), so that its spectrum changes by |1 + L|² as flown over |1 + L|² as it would be (Bode; Åström and Murray, Feedback Systems,
 * 12.1).
 */
final readonly class ClosedLoop
{
    /** Above this no loop of a craft does anything. */
    private const UP_TO_HZ = 200.0;

    /** A plant is not known so well that more than this could be believed, as a ratio of power. */
    private const MOST = 4.0;

    /** An axis whose plant explains less than this of what it did says nothing. */
    private const MOST_MISFIT = 0.35;

    /**
     * @param array<string, AxisPlant> $plants  by axis
     * @param SettingSet               $flown   with which the log was flown
     * @param list<float>              $rotorHz at which its motors turned
     */
    public function __construct(private array $plants, private SettingSet $flown, private array $rotorHz)
    {
    }

    /** As the log itself tells: how its axes answer, and how fast its motors turned. */
    public static function in(FlightLog $log, SettingSet $flown): self
    {
        $plants = [];
        foreach (Axis::cases() as $axis) {
            try {
                $plants[$axis->value] = AxisPlant::in($log, $axis);
            } catch (SignalError) {
                continue;
            }
        }
        $speeds = [];
        foreach (WhatIf::rotors($log) as $runs) {
            $all = array_merge(...$runs);
            $speeds[] = array_sum($all) / max(1, \count($all));
        }

        return new self(array_filter($plants), $flown, $speeds);
    }

    public function knows(Axis $axis): bool
    {
        $plant = $this->plants[$axis->value] ?? null;

        return null !== $plant && $plant->misfit <= self::MOST_MISFIT && $this->flown->has("gain.{$axis->value}.p");
    }

    /** @return \Closure(float): float|null ratio of power at a frequency, Hz; null where nothing is known, or it would not be stable */
    public function ratio(Axis $axis, SettingSet $chain): ?\Closure
    {
        $plant = $this->plants[$axis->value] ?? null;
        if (null === $plant || !$this->knows($axis)) {
            return null;
        }
        $was = RateFilters::of($this->flown, $this->flown->loopHz(), $this->rotorHz);
        $will = RateFilters::of($chain, $this->loopHz($chain), $this->rotorHz);
        [$before, $after] = $this->gains($axis, $chain);
        if ($was == $will && $before == $after) {
            return null;
        }

        return static function (float $hz) use ($plant, $was, $will, $before, $after): float {
            if ($hz > self::UP_TO_HZ || $hz <= 0) {
                return 1.0;
            }
            [$ar, $ai] = LoopMargins::loop($plant, $before, $was, $hz);
            [$br, $bi] = LoopMargins::loop($plant, $after, $will, $hz);
            $ratio = ((1 + $ar) ** 2 + $ai ** 2) / max(1e-6, (1 + $br) ** 2 + $bi ** 2);

            return max(1 / self::MOST, min(self::MOST, $ratio));
        };
    }

    /**
     * For many chains that differ from one in their rate path alone.
     *
     * @param float $stepHz between the frequencies at which it is wanted, from 0 on
     *
     * @return LoopRatios|null null where nothing is known
     */
    public function ratios(Axis $axis, SettingSet $chain, float $stepHz): ?LoopRatios
    {
        $plant = $this->plants[$axis->value] ?? null;
        if (null === $plant || !$this->knows($axis)) {
            return null;
        }
        $loopHz = $this->loopHz($chain);
        $was = RateFilters::of($this->flown, $this->flown->loopHz(), $this->rotorHz);
        $bare = RateFilters::of($chain, $loopHz)->withoutRatePath();
        [$before, $after] = $this->gains($axis, $chain);
        // At nothing, where the integral has no end, the ratio is not asked for: as if there were no loop.
        $shaken = [1.0];
        $open = [[0.0, 0.0]];
        for ($k = 1; $k * $stepHz <= self::UP_TO_HZ; ++$k) {
            [$re, $im] = LoopMargins::loop($plant, $before, $was, $k * $stepHz);
            $shaken[] = (1 + $re) ** 2 + $im ** 2;
            $open[] = LoopMargins::loop($plant, $after, $bare, $k * $stepHz);
        }

        return new LoopRatios($shaken, $open, $this->rotorHz, $loopHz, $stepHz, self::MOST);
    }

    private function loopHz(SettingSet $chain): float
    {
        return $chain->has('motors.loop_rate_hz') ? $chain->loopHz() : $this->flown->loopHz();
    }

    /** @return array{GainSet, GainSet} as flown, and as they would be */
    private function gains(Axis $axis, SettingSet $chain): array
    {
        $before = GainSet::ofAxis($this->flown, $axis);

        return [$before, $chain->has("gain.{$axis->value}.p") ? GainSet::ofAxis($chain, $axis) : $before];
    }
}
