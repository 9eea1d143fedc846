<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\FlightLog\Units\UnitGuess;

/**
 * The unit of a rate by the distance between its values. A gyro of ±2000, ±1000 or ±500 deg/s counts to 32,768 (or a round number of counts
 * per deg/s), and what is written of it lies on those steps in whatever unit it is written. Counts themselves are whole numbers, which
 * tells nothing.
 */
final class RateSteps
{
    /** Different values that must lie on the steps. */
    private const LEAST_VALUES = 24;

    /** Steps that they must span. */
    private const LEAST_SPAN = 30;

    /** Length of the mean of their phases on the steps: 1 where each is on a step, about 0.2 for as many that know nothing of them. */
    private const ON_STEPS = 0.9;

    private const COUNTS_PER_DPS = [32768 / 2000, 16.4, 32768 / 1000, 32.8, 32768 / 500, 65.5];
    private const UNITS = ['0.1 deg/s', 'deg/s', 'mrad/s', 'rad/s'];

    /**
     * @param list<float> $values
     *
     * @return UnitGuess|null null where they lie on the steps of no gyro, as filtered and rounded ones do
     */
    public static function unit(array $values): ?UnitGuess
    {
        $values = array_values(array_unique($values));
        if (\count($values) < self::LEAST_VALUES) {
            return null;
        }
        $span = max($values) - min($values);
        // Coarse steps first: what lies on them lies on finer ones, too.
        foreach (self::steps() as [$unit, $step]) {
            if ($span >= self::LEAST_SPAN * $step && self::coherence($values, $step) > self::ON_STEPS) {
                return UnitGuess::bySteps($unit);
            }
        }

        return null;
    }

    /** @return list<array{string, float}> unit, and its step in that unit; the coarsest first */
    private static function steps(): array
    {
        $steps = [];
        foreach (self::UNITS as $unit) {
            foreach (self::COUNTS_PER_DPS as $counts) {
                $steps[] = [$unit, 1 / ($counts * UnitGuess::CHOICES['deg/s'][$unit][0])];
            }
        }
        usort($steps, static fn (array $a, array $b): int => $b[1] <=> $a[1]);

        return $steps;
    }

    /** @param list<float> $values */
    private static function coherence(array $values, float $step): float
    {
        $re = $im = 0.0;
        foreach ($values as $v) {
            $phase = 2 * \M_PI * ($v / $step);
            $re += cos($phase);
            $im += sin($phase);
        }

        return hypot($re, $im) / \count($values);
    }
}
