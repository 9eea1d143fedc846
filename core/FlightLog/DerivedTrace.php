<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Craft\Axis;

/**
 * A trace that no log holds and that follows from those it holds, sample by sample: a weighted sum of them.
 *
 * `error_AXIS_dps` is what was asked less what the filtered gyro says; `sum_AXIS` is P, I, D and feed-forward together, as far as they
 * were logged, and only where two of them were.
 */
final readonly class DerivedTrace
{
    /** @param array<string, float> $weights by trace of the log */
    private function __construct(public string $name, public string $unit, public string $words, public array $weights)
    {
    }

    /**
     * @param list<string> $logged
     *
     * @return array<string, self> by name
     */
    public static function allOf(array $logged): array
    {
        $all = [];
        foreach (Axis::cases() as $axis) {
            $error = [Traces::setpoint($axis) => 1.0, Traces::filteredRate($axis) => -1.0];
            if ([] === array_diff(array_keys($error), $logged)) {
                $all["error_{$axis->value}_dps"] = new self("error_{$axis->value}_dps", 'deg/s', "error, $axis->value", $error);
            }
            $terms = [];
            foreach (['p', 'i', 'd', 'ff'] as $term) {
                if (\in_array("term_{$term}_$axis->value", $logged, true)) {
                    $terms["term_{$term}_$axis->value"] = 1.0;
                }
            }
            if (\count($terms) > 1) {
                $all["sum_$axis->value"] = new self("sum_$axis->value", '%', "all terms, $axis->value", $terms);
            }
        }

        return $all;
    }

    /**
     * @param array<string, list<float>> $samples of each trace it is made from, all as long
     *
     * @return list<float>
     */
    public function of(array $samples): array
    {
        $sum = array_fill(0, \count(reset($samples) ?: []), 0.0);
        foreach ($this->weights as $trace => $weight) {
            foreach ($samples[$trace] as $i => $v) {
                $sum[$i] += $weight * $v;
            }
        }

        return array_values($sum);
    }
}
