<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

use Ortholex\Core\Signal\Exception\NoValues;

/** Order statistics and moments of plain lists. */
final readonly class Statistics
{
    /** Fewer are sorted sooner than they are parted. */
    private const SOON_SORTED = 200;

    private const MOST_ROUNDS = 60;

    /** @param list<float> $values sorted ascending, not empty */
    public static function quantileOfSorted(array $values, float $share): float
    {
        $position = $share * (\count($values) - 1);
        $low = (int) floor($position);
        $high = min($low + 1, \count($values) - 1);

        return $values[$low] + ($position - $low) * ($values[$high] - $values[$low]);
    }

    /**
     * @param list<float> $values
     *
     * @throws SignalError on an empty list
     */
    public static function quantile(array $values, float $share): float
    {
        if ([] === $values) {
            throw NoValues::of('quantile');
        }
        $n = \count($values);
        if ($n < self::SOON_SORTED) {
            sort($values);

            return self::quantileOfSorted($values, $share);
        }
        $position = $share * ($n - 1);
        $low = (int) floor($position);
        $values = self::parted($values, $low);
        $at = $values[$low];
        if ($low >= $n - 1) {
            return $at;
        }
        // Of what lies behind, the least comes next.
        $next = $values[$low + 1];
        for ($i = $low + 2; $i < $n; ++$i) {
            if ($values[$i] < $next) {
                $next = $values[$i];
            }
        }

        return $at + ($position - $low) * ($next - $at);
    }

    /**
     * The value of a rank put where sorting would put it, none behind it less and none before it greater: cheaper than to sort all (Hoare,
     * Algorithm 65, 1961). Where it does not come to an end soon, all are sorted.
     *
     * @param list<float> $values
     *
     * @return list<float>
     */
    private static function parted(array $values, int $rank): array
    {
        $left = 0;
        $right = \count($values) - 1;
        for ($rounds = 0; $left < $right; ++$rounds) {
            if ($rounds > self::MOST_ROUNDS) {
                sort($values);
                break;
            }
            [$a, $b, $c] = [$values[$left], $values[($left + $right) >> 1], $values[$right]];
            $pivot = max(min($a, $b), min(max($a, $b), $c));
            $i = $left;
            $j = $right;
            while ($i <= $j) {
                while ($values[$i] < $pivot) {
                    ++$i;
                }
                while ($pivot < $values[$j]) {
                    --$j;
                }
                if ($i <= $j) {
                    $v = $values[$i];
                    $values[$i] = $values[$j];
                    $values[$j] = $v;
                    ++$i;
                    --$j;
                }
            }
            if ($rank <= $j) {
                $right = $j;
            } elseif ($rank >= $i) {
                $left = $i;
            } else {
                break;
            }
        }

        return array_values($values);
    }

    /** @param list<float> $values */
    public static function median(array $values): float
    {
        return self::quantile($values, 0.5);
    }

    /** @param list<float> $values */
    public static function mean(array $values): float
    {
        return [] === $values ? throw NoValues::of('mean') : array_sum($values) / \count($values);
    }

    /** @param list<float> $values root of the mean square about the mean */
    public static function deviation(array $values): float
    {
        $mean = self::mean($values);
        $sum = 0.0;
        foreach ($values as $value) {
            $sum += ($value - $mean) ** 2;
        }

        return sqrt($sum / \count($values));
    }

    /**
     * Means of $factor samples each, a last part that is not full left out. Done alike to two signals, it leaves what
     * relates them unchanged.
     *
     * @param list<float> $samples
     *
     * @return list<float>
     */
    public static function decimated(array $samples, int $factor): array
    {
        if ($factor <= 1) {
            return $samples;
        }
        $out = [];
        for ($i = 0, $n = \count($samples) - $factor; $i <= $n; $i += $factor) {
            $sum = 0.0;
            for ($j = 0; $j < $factor; ++$j) {
                $sum += $samples[$i + $j];
            }
            $out[] = $sum / $factor;
        }

        return $out;
    }
}
