<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\FlightLog\FlightLog;

/** The mean of the motors' speeds through a flight, as a level of 0 to 100 % of a round number of rpm. */
final readonly class RotorSpeed
{
    /**
     * @param float             $fullRpm  what 100 % stands for
     * @param list<list<float>> $levelPct by run
     * @param list<float>       $meanHz   of each motor whose speed was logged
     */
    private function __construct(public float $fullRpm, public array $levelPct, public array $meanHz)
    {
    }

    /**
     * @param int $factor samples averaged into one
     *
     * @return list<list<list<float>>> rpm by motor whose speed was logged, and by run
     */
    public static function logged(FlightLog $log, int $factor): array
    {
        $names = array_values(array_filter(array_map(static fn (string $p): string => "rpm_$p", $log->places()), $log->has(...)));

        return array_map(static fn (string $name): array => $log->decimatedRuns($name, $factor), $names);
    }

    /**
     * @param list<list<list<float>>> $rotors of logged()
     *
     * @return self|null null where no speed was logged, or all of them are zero
     */
    public static function of(array $rotors): ?self
    {
        if ([] === $rotors) {
            return null;
        }
        $sums = $rotors[0];
        foreach (\array_slice($rotors, 1) as $runs) {
            foreach ($sums as $r => $sum) {
                foreach ($runs[$r] as $i => $v) {
                    $sum[$i] += $v;
                }
                $sums[$r] = $sum;
            }
        }
        $top = 0.0;
        foreach ($sums as $run) {
            $top = max($top, [] === $run ? 0.0 : max($run));
        }
        if ($top <= 0) {
            return null;
        }
        $full = 2000 * ceil($top / \count($rotors) / 2000);
        $k = 100 / ($full * \count($rotors));
        $levels = [];
        foreach ($sums as $run) {
            $level = [];
            foreach ($run as $v) {
                $level[] = $v * $k;
            }
            $levels[] = $level;
        }

        return new self($full, $levels, array_map(self::meanHz(...), $rotors));
    }

    /** @param list<list<float>> $runs rpm */
    private static function meanHz(array $runs): float
    {
        return array_sum(array_map(array_sum(...), $runs)) / max(1, array_sum(array_map(count(...), $runs))) / 60;
    }
}
