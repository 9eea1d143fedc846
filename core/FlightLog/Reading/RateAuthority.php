<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Signal\LinearSystem;

/**
 * How hard the motors turn a craft, in the unit of its rate per second: the acceleration that full output on one side and none on the
 * other would give, brought to the lift of hover. By least squares of the change of the rate on the outputs, which are delayed as rotors
 * are; where each motor stands need not be known.
 *
 * Of a craft that hovers, thrust over weight is about hover output ^ −1.6. With the moment of inertia m·c²·arm² and c² from 0.15 (all mass
 * in the middle) to 0.35 (heavy motors), what is left is g · 0.35 / (c² · arm): from 1,400 deg/s² (arms of 0.4 m) to 52,000 (of 25 mm).
 */
final readonly class RateAuthority
{
    /** Between these a craft can be, deg/s²; the fit finds up to half too little, as it does not know the rotors' lag. */
    private const PLAUSIBLE_DPS2 = [700.0, 60_000.0];

    private const ROTOR_S = 0.035;

    /** Half of the time over which a change is taken, s. */
    private const HALF_S = 0.012;

    private const LEAST_MOMENTS = 60;

    /** Share of the changes that the outputs must explain. */
    private const EXPLAINED = 0.2;

    private const THRUST_POWER = 1.6;

    /** @param float $perS2 of the rate's own unit */
    private function __construct(public float $perS2, public float $explained)
    {
    }

    /**
     * @param list<list<array{float, float, list<float>}>> $runs moments in order: time in s, rate in its own unit, outputs 0 to 1
     *
     * @return self|null null where the outputs do not explain how the rate changes
     */
    public static function of(array $runs): ?self
    {
        $changes = array_merge(...array_map(self::changes(...), $runs));
        if (\count($changes) < self::LEAST_MOMENTS) {
            return null;
        }
        $n = \count($changes[0][1]);
        $a = array_fill(0, $n, array_fill(0, $n, 0.0));
        $b = array_fill(0, $n, 0.0);
        $square = $hover = 0.0;
        foreach ($changes as [$change, $outputs, $level]) {
            $square += $change * $change;
            $hover += $level / \count($changes);
            foreach ($outputs as $j => $x) {
                $b[$j] += $x * $change;
                foreach ($outputs as $k => $y) {
                    $a[$j][$k] += $x * $y;
                }
            }
        }
        for ($j = 0; $j < $n; ++$j) {
            $a[$j][$j] += 1e-4 * $a[$j][$j] + 1e-12;
        }
        $per = LinearSystem::solve($a, $b);
        if (null === $per || $square <= 0.0 || $hover <= 0.0) {
            return null;
        }
        $explained = array_sum(array_map(static fn (float $p, float $q): float => $p * $q, $per, $b)) / $square;
        $mean = array_sum($per) / $n;
        $full = array_sum(array_map(static fn (float $p): float => abs($p - $mean), $per)) / 2;

        return $explained < self::EXPLAINED ? null : new self($full * $hover ** self::THRUST_POWER, $explained);
    }

    /** Whether a craft can be so, if a value times this is deg/s. */
    public function allows(float $scale): bool
    {
        [$least, $most] = self::PLAUSIBLE_DPS2;

        return $this->perS2 * $scale >= $least && $this->perS2 * $scale <= $most;
    }

    /**
     * @param list<array{float, float, list<float>}> $run
     *
     * @return list<array{float, list<float>, float}> change of the rate per s and outputs, both around their means; mean output
     */
    private static function changes(array $run): array
    {
        $n = \count($run);
        $step = $n < 2 ? 0.0 : ($run[$n - 1][0] - $run[0][0]) / ($n - 1);
        if ($step <= 0.0) {
            return [];
        }
        $half = max(1, (int) round(self::HALF_S / $step));
        if ($n < 6 * $half) {
            return [];
        }
        $lagged = self::lagged(array_column($run, 2), exp(-$step / self::ROTOR_S), $half);
        $found = [];
        for ($i = 2 * $half; $i < $n - $half; $i += max(1, intdiv($half, 2))) {
            $outputs = [];
            foreach (array_keys($run[0][2]) as $m) {
                $outputs[] = array_sum(array_column(\array_slice($lagged, $i - $half, 2 * $half + 1), $m)) / (2 * $half + 1);
            }
            $found[] = [($run[$i + $half][1] - $run[$i - $half][1]) / (2 * $half * $step), $outputs];
        }
        $count = \count($found);
        $mean = array_sum(array_column($found, 0)) / $count;
        $all = array_column($found, 1);
        $means = array_map(static fn (int $m): float => array_sum(array_column($all, $m)) / $count, array_keys($run[0][2]));
        $level = array_sum($means) / \count($means);

        return array_map(
            static fn (array $f): array => [
                $f[0] - $mean,
                array_map(static fn (float $x, float $m): float => $x - $m, $f[1], $means),
                $level,
            ],
            $found,
        );
    }

    /**
     * @param list<list<float>> $outputs by moment
     *
     * @return list<list<float>> as rotors follow them; they begin at the mean of the first moments
     */
    private static function lagged(array $outputs, float $keeps, int $first): array
    {
        $now = [];
        foreach (array_keys($outputs[0]) as $m) {
            $now[$m] = array_sum(array_column(\array_slice($outputs, 0, $first), $m)) / $first;
        }
        $all = [];
        foreach ($outputs as $row) {
            foreach ($row as $m => $v) {
                $now[$m] = $v + $keeps * ($now[$m] - $v);
            }
            $all[] = array_values($now);
        }

        return $all;
    }
}
