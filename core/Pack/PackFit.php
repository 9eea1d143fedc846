<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

use Ortholex\Core\FlightLog\FlightLog;

/**
 * What a flight tells of its pack: V = E(charge used) − R·I (RULES 10).
 *
 * R comes from how voltage answers current within stretches so short that E is a straight line, by least squares over all of them
 * (the within estimator of panel regression; Wooldridge, Econometric Analysis, 10.5); its interval from the scatter of the stretches,
 * which are taken as independent where neighbouring samples are not. E is what is left when R·I is put back, by charge used.
 */
final readonly class PackFit
{
    /** Samples are averaged over so long: voltage follows current a moment late, s. */
    private const MEAN_S = 0.4;

    /** Windows to a stretch. */
    private const STRETCH = 20;

    private const LEAST_STRETCHES = 3;

    /** Without this much change of current it cannot be told, A. */
    private const LEAST_A = 0.5;

    /** Bins of the rest curve. */
    private const BINS = 24;

    /** Two-sided 95 % of Student's t by degrees of freedom, from 2 (Abramowitz and Stegun, 26.10). */
    private const T95 = [
        2 => 4.303,
        3 => 3.182,
        4 => 2.776,
        5 => 2.571,
        6 => 2.447,
        8 => 2.306,
        10 => 2.228,
        15 => 2.131,
        20 => 2.086,
        30 => 2.042,
    ];

    /**
     * @param float                     $chargeAh  counted over the flight
     * @param float                     $ohm       of one cell
     * @param float                     $low       least of its 95 % interval
     * @param float                     $high      most
     * @param list<array{float, float}> $rest      charge used in Ah, and the voltage of one cell at rest
     * @param float                     $meanA     mean current
     * @param int                       $stretches that it was told from
     */
    private function __construct(
        public int $cells,
        public float $chargeAh,
        public float $ohm,
        public float $low,
        public float $high,
        public array $rest,
        public float $meanA,
        public int $stretches,
    ) {
    }

    /**
     * @param int $cells that the pack has, at least 1
     *
     * @throws PackError where the log has no voltage or current, or too little of it
     */
    public static function of(FlightLog $log, int $cells): self
    {
        foreach (['battery_v', 'current_a'] as $name) {
            if (!$log->has($name)) {
                throw PackError::noTrace($name);
            }
        }
        [$volts, $amperes] = [$log->trace('battery_v'), $log->trace('current_a')];
        $windows = self::windows($volts, $amperes, $log->clock->rateHz, $cells);
        $stretches = array_values(array_filter(
            array_chunk($windows, self::STRETCH),
            static fn (array $s): bool => \count($s) >= self::STRETCH / 2,
        ));
        if (\count($stretches) < self::LEAST_STRETCHES) {
            throw PackError::tooShort(\count($windows) * self::MEAN_S);
        }
        [$ohm, $error] = self::resistance($stretches);
        $t = 1.96;
        foreach (self::T95 as $degrees => $value) {
            if (\count($stretches) - 1 <= $degrees) {
                $t = $value;
                break;
            }
        }
        $last = $windows[\count($windows) - 1][0];

        return new self(
            $cells,
            $last,
            $ohm,
            $ohm - $t * $error,
            $ohm + $t * $error,
            self::rest($windows, $ohm),
            array_sum(array_column($windows, 2)) / \count($windows),
            \count($stretches),
        );
    }

    /** The voltage of a cell at rest with so much charge used, Ah; beyond what was flown, the nearest. */
    public function restAt(float $ah): float
    {
        $before = null;
        foreach ($this->rest as $point) {
            if ($point[0] >= $ah) {
                return null === $before
                    ? $point[1]
                    : $before[1] + (($point[1] - $before[1]) * ($ah - $before[0])) / max(1e-9, $point[0] - $before[0]);
            }
            $before = $point;
        }

        return $before[1] ?? 0.0;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'charge_ah' => round($this->chargeAh, 4),
            'ohm_per_cell' => ['value' => round($this->ohm, 6), 'low' => round($this->low, 6), 'high' => round($this->high, 6)],
            'rest_cell_v' => array_map(static fn (array $p): array => [round($p[0], 4), round($p[1], 4)], $this->rest),
        ];
    }

    /**
     * @param list<float> $volts
     * @param list<float> $amperes
     *
     * @return list<array{float, float, float}> charge used in Ah, volts of a cell and amperes, in the mean of each window
     */
    private static function windows(array $volts, array $amperes, float $rateHz, int $cells): array
    {
        $wide = max(1, (int) round(self::MEAN_S * $rateHz));
        $out = [];
        $charge = 0.0;
        for ($from = 0, $n = \count($volts); $from + $wide <= $n; $from += $wide) {
            $v = array_sum(\array_slice($volts, $from, $wide)) / $wide;
            $a = array_sum(\array_slice($amperes, $from, $wide)) / $wide;
            $charge += ($a * $wide) / $rateHz / 3600;
            if (is_finite($v) && is_finite($a)) {
                $out[] = [$charge, $v / $cells, $a];
            }
        }

        return $out;
    }

    /**
     * @param list<list<array{float, float, float}>> $stretches
     *
     * @return array{float, float} ohm of a cell, and its standard error
     *
     * @throws PackError
     */
    private static function resistance(array $stretches): array
    {
        $sums = [];
        $xx = $xy = 0.0;
        $spread = 0.0;
        foreach ($stretches as $stretch) {
            $i = self::straightened(array_column($stretch, 2));
            $v = self::straightened(array_column($stretch, 1));
            $sxx = $sxy = 0.0;
            foreach ($i as $k => $a) {
                $sxx += $a * $a;
                $sxy -= $a * $v[$k];
            }
            $sums[] = [$sxx, $sxy];
            $xx += $sxx;
            $xy += $sxy;
            $spread = max($spread, [] === $i ? 0.0 : max($i) - min($i));
        }
        if ($spread < self::LEAST_A || $xx <= 0) {
            throw PackError::steady($spread);
        }
        $ohm = $xy / $xx;
        $squares = 0.0;
        foreach ($sums as [$sxx, $sxy]) {
            $squares += ($sxy - $ohm * $sxx) ** 2;
        }
        $n = \count($sums);

        return [$ohm, sqrt(($squares * $n) / ($n - 1)) / $xx];
    }

    /**
     * Without its mean and its slope.
     *
     * @param list<float> $y
     *
     * @return list<float>
     */
    private static function straightened(array $y): array
    {
        $n = \count($y);
        $mean = array_sum($y) / $n;
        $middle = ($n - 1) / 2;
        $xx = $xy = 0.0;
        foreach ($y as $i => $value) {
            $xx += ($i - $middle) ** 2;
            $xy += ($i - $middle) * ($value - $mean);
        }
        $slope = $xx > 0 ? $xy / $xx : 0.0;
        foreach ($y as $i => $value) {
            $y[$i] = $value - $mean - $slope * ($i - $middle);
        }

        return array_values($y);
    }

    /**
     * @param list<array{float, float, float}> $windows
     *
     * @return list<array{float, float}>
     */
    private static function rest(array $windows, float $ohm): array
    {
        $out = [];
        foreach (array_chunk($windows, max(1, (int) ceil(\count($windows) / self::BINS))) as $bin) {
            $charge = $volts = 0.0;
            foreach ($bin as [$q, $v, $a]) {
                $charge += $q;
                $volts += $v + $ohm * $a;
            }
            $out[] = [$charge / \count($bin), $volts / \count($bin)];
        }

        return $out;
    }
}
