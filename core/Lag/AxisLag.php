<?php

declare(strict_types=1);

namespace Ortholex\Core\Lag;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\Statistics;

/**
 * How long rotation comes after the command, from cross-correlation in windows of two seconds with enough motion.
 *
 * Each window of the rate is held against a stretch of the command that reaches out on both sides, and the correlation
 * is divided by the energy it met there: without that, a smooth command draws the peak towards zero by half a
 * millisecond. + is lag, − is lead.
 */
final readonly class AxisLag
{
    private const WINDOW_S = 2.0;
    private const REACH_S = 0.1;
    private const LEAST_DPS = 15.0;
    private const RATE_HZ = 500.0;
    private const LEAST_CORRELATION = 0.5;

    private function __construct(public float $ms, public float $iqrMs, public int $windows)
    {
    }

    /** Half the range between the quartiles, ms. */
    public function halfWidthMs(): float
    {
        return $this->iqrMs / 2;
    }

    /**
     * @param list<list<float>> $setpoint gap-free runs, deg/s
     * @param list<list<float>> $rate     of the same runs
     *
     * @return self|null null when no window tells
     */
    public static function of(array $setpoint, array $rate, float $rateHz): ?self
    {
        $factor = max(1, (int) floor($rateHz / self::RATE_HZ));
        $fs = $rateHz / $factor;
        $n = (int) (self::WINDOW_S * $fs);
        $reach = (int) ceil(self::REACH_S * $fs);
        $size = Fft::sizeFor($n + 2 * $reach + 2);
        $fft = Fft::ofSize($size);
        $lags = [];
        foreach ($setpoint as $r => $run) {
            $x = Statistics::decimated($run, $factor);
            $y = Statistics::decimated($rate[$r], $factor);
            for ($at = $reach, $last = \count($x) - $n - $reach; $at <= $last; $at += intdiv($n, 2)) {
                $lag = self::inWindow($fft, \array_slice($x, $at - $reach, $n + 2 * $reach), \array_slice($y, $at, $n), $reach);
                if (null !== $lag) {
                    $lags[] = (1e3 * $lag) / $fs;
                }
            }
        }
        if ([] === $lags) {
            return null;
        }
        sort($lags);

        return new self(
            Statistics::quantileOfSorted($lags, 0.5),
            Statistics::quantileOfSorted($lags, 0.75) - Statistics::quantileOfSorted($lags, 0.25),
            \count($lags),
        );
    }

    /**
     * @param list<float> $x command, $reach longer at either end
     * @param list<float> $y rate
     *
     * @return float|null samples that $y comes after $x
     */
    private static function inWindow(Fft $fft, array $x, array $y, int $reach): ?float
    {
        $n = \count($y);
        $mx = array_sum($x) / \count($x);
        $my = array_sum($y) / $n;
        $energyY = 0.0;
        foreach ($y as $i => $v) {
            $y[$i] = $v - $my;
            $energyY += ($v - $my) ** 2;
        }
        $running = [0.0];
        $sum = 0.0;
        foreach ($x as $i => $v) {
            $x[$i] = $v - $mx;
            $running[] = $sum += ($v - $mx) ** 2;
        }
        if (sqrt($sum / \count($x)) < self::LEAST_DPS || $energyY <= 0) {
            return null;
        }
        $a = array_pad($x, $fft->size, 0.0);
        $b = array_pad($y, $fft->size, 0.0);
        [$ar, $ai, $br, $bi] = $fft->twoReal($a, $b);
        $half = $fft->size >> 1;
        $re = $im = array_fill(0, $fft->size, 0.0);
        for ($k = 0; $k <= $half; ++$k) {
            $re[$k] = $ar[$k] * $br[$k] + $ai[$k] * $bi[$k];
            $im[$k] = $ai[$k] * $br[$k] - $ar[$k] * $bi[$k];
            if ($k > 0 && $k < $half) {
                $re[$fft->size - $k] = $re[$k];
                $im[$fft->size - $k] = -$im[$k];
            }
        }
        [$c] = $fft->inverse(array_values($re), array_values($im));
        // c[d] = Σ x[d + i]·y[i]: the command $reach − d samples before the rate.
        $rho = [];
        for ($d = 0; $d <= 2 * $reach; ++$d) {
            $energy = $running[$d + $n] - $running[$d];
            $rho[] = $energy > 0 ? $c[$d] / sqrt($energy * $energyY) : 0.0;
        }
        $best = (int) array_search(max([-2.0, ...$rho]), $rho, true);
        if ($rho[$best] < self::LEAST_CORRELATION || 0 === $best || $best === 2 * $reach) {
            return null;
        }
        $l = $rho[$best - 1];
        $r = $rho[$best + 1];
        $curve = $l - 2 * $rho[$best] + $r;

        return $reach - ($best + ($curve < 0 ? (0.5 * ($l - $r)) / $curve : 0.0));
    }

    /** To the digits that a report carries. */
    public function rounded(): self
    {
        return new self(round($this->ms, 3), round($this->iqrMs, 3), $this->windows);
    }

    /** @return array{ms: float, iqr_ms: float, windows: int} */
    public function toArray(): array
    {
        return ['ms' => $this->ms, 'iqr_ms' => $this->iqrMs, 'windows' => $this->windows];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->number('ms'), $data->number('iqr_ms'), $data->whole('windows'));
    }
}
