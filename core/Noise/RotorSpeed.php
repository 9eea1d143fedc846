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

    /** @return self|null null where no speed was logged, or all of them are zero */
    public static function of(FlightLog $log): ?self
    {
        $names = array_values(array_filter(array_map(static fn (string $p): string => "rpm_$p", $log->places()), $log->has(...)));
        if ([] === $names) {
            return null;
        }
        $sums = $log->runs($names[0]);
        $means = [self::meanHz($sums)];
        foreach (\array_slice($names, 1) as $name) {
            $runs = $log->runs($name);
            $means[] = self::meanHz($runs);
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
        $full = 2000 * ceil($top / \count($names) / 2000);
        $k = 100 / ($full * \count($names));
        $levels = [];
        foreach ($sums as $run) {
            $level = [];
            foreach ($run as $v) {
                $level[] = $v * $k;
            }
            $levels[] = $level;
        }

        return new self($full, $levels, $means);
    }

    /** @param list<list<float>> $runs rpm */
    private static function meanHz(array $runs): float
    {
        return array_sum(array_map(array_sum(...), $runs)) / max(1, array_sum(array_map(count(...), $runs))) / 60;
    }
}
