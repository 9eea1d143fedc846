<?php

declare(strict_types=1);

namespace Ortholex\Core\Lag;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\Statistics;

/**
 * By how much one flight has to be shifted so that its sticks move with another's: normalised cross-correlation, summed over
 * throttle and commands.
 */
final readonly class Alignment
{
    private const RATE_HZ = 20.0;

    /** Two flights must lie over each other by at least this much, s. */
    private const LEAST_OVERLAP_S = 5.0;

    private const ALIKE = 0.6;

    /**
     * @param float $shiftS      what is added to the second's time to stand at the first's
     * @param float $correlation how well they agree there, −1 to 1
     */
    private function __construct(public float $shiftS, public float $correlation)
    {
    }

    /** Whether the two were flown alike, so that the shift means something. */
    public function isAlike(): bool
    {
        return $this->correlation > self::ALIKE;
    }

    /** @return self|null null when they have no moving trace in common, or are too short */
    public static function of(FlightLog $a, FlightLog $b): ?self
    {
        $names = array_values(
            array_filter(
                ['throttle_pct', ...array_map(Traces::setpoint(...), Axis::cases())],
                static fn (string $n): bool => $a->has($n) && $b->has($n),
            ),
        );
        $least = (int) (self::LEAST_OVERLAP_S * self::RATE_HZ);
        $sum = $energyA = $energyB = [];
        $size = 0;
        $n = $m = 0;
        foreach ($names as $name) {
            $x = self::even($a, $name);
            $y = self::even($b, $name);
            [$n, $m] = [\count($x), \count($y)];
            if ($n < $least || $m < $least) {
                return null;
            }
            $size = Fft::sizeFor($n + $m);
            $sdX = Statistics::deviation($x);
            $sdY = Statistics::deviation($y);
            if ($sdX <= 0 || $sdY <= 0) {
                continue;
            }
            [$meanX, $meanY] = [Statistics::mean($x), Statistics::mean($y)];
            $x = array_map(static fn (float $v): float => ($v - $meanX) / $sdX, $x);
            $y = array_map(static fn (float $v): float => ($v - $meanY) / $sdY, $y);
            foreach (self::correlation($x, $y, $size) as $lag => $v) {
                $sum[$lag] = ($sum[$lag] ?? 0.0) + $v;
            }
            foreach ($x as $i => $v) {
                $energyA[$i] = ($energyA[$i] ?? 0.0) + $v * $v;
            }
            foreach ($y as $i => $v) {
                $energyB[$i] = ($energyB[$i] ?? 0.0) + $v * $v;
            }
        }
        if ([] === $sum) {
            return null;
        }
        $ea = self::running(array_values($energyA));
        $eb = self::running(array_values($energyB));
        $best = self::best($sum, [$n, $m, $least, $size], $ea, $eb);

        return null === $best
            ? null
            : new self($best[0] / self::RATE_HZ + $a->clock->segments[0]->startS - $b->clock->segments[0]->startS, $best[1]);
    }

    /**
     * @param array<int, float>         $sum   correlation by lag, around
     * @param array{int, int, int, int} $sizes samples of either, least overlap, size of the transform
     * @param list<float>               $ea    running energy of the first
     * @param list<float>               $eb    of the second
     *
     * @return array{int, float}|null lag in samples, and how well they agree there
     */
    private static function best(array $sum, array $sizes, array $ea, array $eb): ?array
    {
        [$n, $m, $least, $size] = $sizes;
        $best = null;
        $most = -\INF;
        for ($lag = $least - $m; $lag <= $n - $least; ++$lag) {
            // Sample j of the second stands at sample j + lag of the first.
            $from = max(0, $lag);
            $to = min($n, $m + $lag);
            if ($to - $from < $least) {
                continue;
            }
            $energy = sqrt(max(1e-9, ($ea[$to] - $ea[$from]) * ($eb[$to - $lag] - $eb[$from - $lag])));
            // A short overlap agrees easily: it counts for less.
            $r = $sum[($lag + $size) % $size] / $energy;
            $score = $r * sqrt(($to - $from) / min($n, $m));
            if ($score > $most) {
                $most = $score;
                $best = [$lag, $r];
            }
        }

        return $best;
    }

    /**
     * @param list<float> $values
     *
     * @return list<float> running sums, from zero on
     */
    private static function running(array $values): array
    {
        $sums = [0.0];
        $sum = 0.0;
        foreach ($values as $v) {
            $sums[] = $sum += $v;
        }

        return $sums;
    }

    /** @return list<float> a trace at an even rate from its first sample on; gaps hold the last value */
    private static function even(FlightLog $log, string $name): array
    {
        $factor = max(1, (int) round($log->clock->rateHz / self::RATE_HZ));
        $start = $log->clock->segments[0]->startS;
        $out = [];
        foreach ($log->clock->segments as $s) {
            for ($at = (int) round(($s->startS - $start) * self::RATE_HZ), $held = $out[\count($out) - 1] ?? 0.0; \count($out) < $at;) {
                $out[] = $held;
            }
            foreach (Statistics::decimated($log->column($name)->values($s->first, $s->count), $factor) as $i => $v) {
                $out[(int) round(($s->startS - $start) * self::RATE_HZ + ($i * $factor * self::RATE_HZ) / $log->clock->rateHz)] = $v;
            }
        }
        ksort($out);

        return array_values($out);
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return list<float> Σ x[i + lag]·y[i], negative lags from the end
     */
    private static function correlation(array $x, array $y, int $size): array
    {
        $fft = Fft::ofSize($size);
        [$xr, $xi, $yr, $yi] = $fft->twoReal(array_pad($x, $size, 0.0), array_pad($y, $size, 0.0));
        $half = $size >> 1;
        $re = $im = array_fill(0, $size, 0.0);
        for ($k = 0; $k <= $half; ++$k) {
            $re[$k] = $xr[$k] * $yr[$k] + $xi[$k] * $yi[$k];
            $im[$k] = $xi[$k] * $yr[$k] - $xr[$k] * $yi[$k];
            if ($k > 0 && $k < $half) {
                $re[$size - $k] = $re[$k];
                $im[$size - $k] = -$im[$k];
            }
        }

        return $fft->inverse(array_values($re), array_values($im))[0];
    }
}
