<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\FlightLog\Units\UnitGuess;

/**
 * What the units of rates and setpoints are, by what the craft did: a rate lies on the steps of its gyro, the outputs turn a craft only so
 * fast, and it follows its setpoint, so that their sizes are alike once both are in one unit. Names only propose.
 */
final class RateScale
{
    /** How well a rate must follow its setpoint to be held against it. */
    private const FOLLOWS = 0.7;

    /** Rows that tell. */
    private const LEAST_ROWS = 200;

    /** Sizes that are alike within this factor are of one unit. */
    private const ALIKE = 1.3;

    /**
     * @param array<int, ColumnGuess>  $guesses
     * @param list<list<float>>        $rows
     * @param array<string, UnitGuess> $units  by trace
     * @param list<string>             $given  traces whose unit was ordered
     *
     * @return array<string, UnitGuess>
     */
    public static function settled(array $guesses, array $rows, array $units, array $given): array
    {
        $columns = [];
        foreach ($guesses as $g) {
            if (null !== $g->trace) {
                $columns[$g->trace] = $g->column;
            }
        }
        foreach (['measured', 'filtered'] as $kind) {
            $rates = array_map(static fn (Axis $a): string => "rate_{$kind}_{$a->value}_dps", Axis::cases());
            $rates = array_values(array_filter($rates, static fn (string $r): bool => isset($units[$r]) && !\in_array($r, $given, true)));
            $alone = (new RateAlone($columns, $rows, $units))->unit($rates);
            $units = null === $alone ? $units : array_merge($units, array_fill_keys($rates, $alone));
            $ratios = [];
            foreach (Axis::cases() as $axis) {
                $set = Traces::setpoint($axis);
                $rate = "rate_{$kind}_{$axis->value}_dps";
                if (isset($columns[$set], $columns[$rate], $units[$set], $units[$rate])) {
                    $ratio = self::ratio(array_column($rows, $columns[$set]), array_column($rows, $columns[$rate]));
                    if (null !== $ratio) {
                        $ratios[] = [$ratio[0] * $units[$set]->scale, $ratio[1]];
                    }
                }
            }
            if ([] === $ratios) {
                continue;
            }
            sort($ratios);
            [$factor, $follows] = $ratios[intdiv(\count($ratios), 2)];
            foreach (Axis::cases() as $axis) {
                $set = Traces::setpoint($axis);
                $rate = "rate_{$kind}_{$axis->value}_dps";
                if (!isset($units[$rate]) || \in_array($rate, $given, true)) {
                    continue;
                }
                $known = isset($units[$set]) && $units[$set]->sure;
                $now = $units[$rate];
                if (abs(log($factor / $now->scale)) < log(self::ALIKE)) {
                    // Both say the same: what one of them is sure of holds for the other.
                    $units[$rate] = $known && !$now->sure ? $now->followed() : $now;
                    if (isset($units[$set]) && $now->sure && !$known && !\in_array($set, $given, true)) {
                        $units[$set] = $units[$set]->followed();
                    }
                    continue;
                }
                $units[$rate] = UnitGuess::ofRatio($factor, $follows) ?? $now;
                if (!$known) {
                    $units[$rate] = $units[$rate]->unsure();
                }
            }
        }

        return $units;
    }

    /**
     * @param list<float> $set
     * @param list<float> $rate
     *
     * @return array{float, float}|null size of the setpoint over that of the rate, in their own units, and how well one follows the
     *                                  other, 0 to 1; null where it does not
     */
    private static function ratio(array $set, array $rate): ?array
    {
        $n = \count($set);
        if ($n < self::LEAST_ROWS) {
            return null;
        }
        $ms = array_sum($set) / $n;
        $mr = array_sum($rate) / $n;
        $ss = $rr = $sr = 0.0;
        foreach ($set as $i => $v) {
            $a = $v - $ms;
            $b = $rate[$i] - $mr;
            $ss += $a * $a;
            $rr += $b * $b;
            $sr += $a * $b;
        }

        $follows = $ss <= 0 || $rr <= 0 ? 0.0 : abs($sr) / sqrt($ss * $rr);

        return $follows < self::FOLLOWS ? null : [sqrt($ss / $rr), $follows];
    }
}
