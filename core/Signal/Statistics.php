<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

use Ortholex\Core\Signal\Exception\NoValues;

/** Order statistics and moments of plain lists. */
final readonly class Statistics
{
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
        sort($values);

        return self::quantileOfSorted($values, $share);
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
