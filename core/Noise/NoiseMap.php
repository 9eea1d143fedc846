<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Signal\RealFft;
use Ortholex\Core\Signal\Spectrum;

/**
 * Noise power over throttle (or over rotor speed) and frequency: short-time spectra (Hann, a quarter of a second, half
 * overlapping; Welch 1967) averaged in bins of the mean level. A bin with fewer than three windows has no data.
 */
final readonly class NoiseMap
{
    public const BIN_PCT = 2.0;
    public const LEAST_WINDOWS = 3;
    private const WINDOW_S = 0.25;

    /** A level is told at least so often, Hz. */
    private const LEVEL_HZ = 100.0;

    /**
     * @param float                   $stepHz   between two frequencies
     * @param array<int, list<float>> $density  (deg/s)²/Hz by bin of the level, of bins that have data
     * @param array<int, int>         $windows  how many went into each bin
     */
    private function __construct(public float $stepHz, public array $density, public array $windows)
    {
    }

    /**
     * @param list<list<float>> $rate     gap-free runs, deg/s
     * @param list<list<float>> $throttle of the same runs, %
     */
    public static function of(array $rate, array $throttle, float $rateHz): self
    {
        return self::against($rate, ['throttle' => self::bins($throttle, $rateHz)], $rateHz)['throttle'];
    }

    /**
     * In which bin of a level each window lies: reckoned once for the maps of all axes.
     *
     * @param list<list<float>> $level  gap-free runs, % of whatever is full
     * @param float             $rateHz of what the map is of
     * @param int               $factor samples of that which one of the level stands for, a power of two; levelFactor() at most
     *
     * @return list<list<int>> by run, window by window
     */
    public static function bins(array $level, float $rateHz, int $factor = 1): array
    {
        $n = max(2, intdiv(self::window($rateHz), $factor));
        $bins = [];
        foreach ($level as $run) {
            $of = [];
            for ($at = 0, $last = \count($run) - $n; $at <= $last; $at += intdiv($n, 2)) {
                $mean = array_sum(\array_slice($run, $at, $n)) / $n;
                $of[] = (int) floor(max(0.0, min(99.999, $mean)) / self::BIN_PCT);
            }
            $bins[] = $of;
        }

        return $bins;
    }

    /** Samples of a level that may be averaged into one: windows begin and end between two of these. */
    public static function levelFactor(float $rateHz): int
    {
        return 2 ** max(0, (int) floor(log($rateHz / self::LEVEL_HZ, 2)));
    }

    /** Samples of a window. */
    private static function window(float $rateHz): int
    {
        return 2 ** max(5, (int) round(log(self::WINDOW_S * $rateHz, 2)));
    }

    /**
     * One map against each of several levels, from the same spectra.
     *
     * @template K of string
     *
     * @param list<list<float>>         $rate   gap-free runs, deg/s
     * @param array<K, list<list<int>>> $levels bins() of the same runs
     *
     * @return array<K, self>
     */
    public static function against(array $rate, array $levels, float $rateHz): array
    {
        $n = self::window($rateHz);
        $hop = intdiv($n, 2);
        $half = intdiv($n, 2);
        $fft = RealFft::ofSize($n);
        $hann = HannWindow::ofSize($n);
        [$window, $power] = [$hann->weights, $hann->power];
        $sums = $counts = array_map(static fn (): array => [], $levels);
        foreach ($rate as $r => $run) {
            for ($w = $at = 0, $last = \count($run) - $n; $at <= $last; $at += $hop, ++$w) {
                $x = \array_slice($run, $at, $n);
                $mean = array_sum($x) / $n;
                for ($i = 0; $i < $n; ++$i) {
                    $x[$i] = ($x[$i] - $mean) * $window[$i];
                }
                [$re, $im] = $fft->forward($x);
                for ($k = 0; $k <= $half; ++$k) {
                    $re[$k] = $re[$k] * $re[$k] + $im[$k] * $im[$k];
                }
                foreach ($levels as $name => $level) {
                    $bin = $level[$r][$w];
                    $sum = $sums[$name][$bin] ?? array_fill(0, $half + 1, 0.0);
                    for ($k = 0; $k <= $half; ++$k) {
                        $sum[$k] += $re[$k];
                    }
                    $sums[$name][$bin] = $sum;
                    $counts[$name][$bin] = ($counts[$name][$bin] ?? 0) + 1;
                }
            }
        }
        $maps = [];
        foreach ($levels as $name => $level) {
            $density = [];
            ksort($sums[$name]);
            foreach ($sums[$name] as $bin => $sum) {
                if ($counts[$name][$bin] >= self::LEAST_WINDOWS) {
                    $scale = 2.0 / ($rateHz * $power * $counts[$name][$bin]);
                    $row = array_map(static fn (float $v): float => $v * $scale, array_values($sum));
                    // Zero and half the rate have no mirror image.
                    $row[0] /= 2;
                    $row[$half] /= 2;
                    $density[$bin] = array_values($row);
                }
            }
            ksort($counts[$name]);
            $maps[$name] = new self($rateHz / $n, $density, $counts[$name]);
        }

        return $maps;
    }

    /** The same behind filters that stand: each density times |H|². */
    public function through(FilterChain $chain): self
    {
        $gain = [];
        foreach (array_keys(array_values($this->density)[0] ?? []) as $k) {
            [$re, $im] = $chain->response(min($k * $this->stepHz, $chain->rateHz / 2));
            $gain[] = $re * $re + $im * $im;
        }
        $density = [];
        foreach ($this->density as $bin => $row) {
            $density[$bin] = array_map(static fn (float $v, float $g): float => $v * $g, $row, $gain);
        }

        return new self($this->stepHz, $density, $this->windows);
    }

    /** Mean level of a bin, %. */
    public static function middle(int $bin): float
    {
        return ($bin + 0.5) * self::BIN_PCT;
    }

    /** Level that the bins with data span, %. */
    public function span(): float
    {
        return [] === $this->density ? 0.0 : self::BIN_PCT * (array_key_last($this->density) - array_key_first($this->density) + 1);
    }

    /** @return array<int, list<array{hz: float, db: float, prominence: float}>> peaks by bin */
    public function peaks(float $fromHz, float $prominenceDb, int $most = 6): array
    {
        $peaks = [];
        foreach ($this->density as $bin => $density) {
            foreach (Spectrum::of($this->stepHz, $density, $this->windows[$bin])->peaks($fromHz, $prominenceDb, $most) as $peak) {
                $peaks[$bin][] = ['hz' => $peak->hz, 'db' => $peak->db, 'prominence' => $peak->prominenceDb];
            }
        }

        return $peaks;
    }
}
