<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Signal\CrossSpectra;
use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\HannWindow;

/**
 * The windows of one axis that carry enough stick movement, as spectra, and why the others do not.
 *
 * They are chosen by their input and by coherence, never by how the outcome looks, which would hide bad tunes; what
 * somebody struck out by hand is counted as such.
 */
final readonly class StepWindows
{
    private const LEAST_INPUT_DPS = 15.0;
    private const LEAST_COHERENCE = 0.5;
    private const TOP_HZ = 100.0;

    /**
     * @param int $size     samples of a window
     * @param list<array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}> $used
     *     auto- and cross-spectra per window
     * @param array<string, int> $excluded
     * @param list<float>      $sizes    largest |setpoint| of each used window under its taper, deg/s
     * @param list<StepWindow> $all      every window in order of time; why is empty where it is used
     */
    private function __construct(
        public int $size,
        public int $hop,
        public array $used,
        public array $excluded,
        public array $sizes,
        public array $all,
    ) {
    }

    /**
     * @param list<array{list<float>, list<float>, float}> $runs   setpoint, rate, deg/s, and when the run begins, s
     * @param list<float>                                  $byHand beginnings of windows struck out, s
     * @param int                                          $late   samples by which the rate's window comes after the setpoint's: what the
     *                                                             stick does at the end of one is else answered outside of it, and under
     *                                                             the falling side of the taper, which makes a slow loop look quick
     * @param int<1, 4>                                    $apart  of a window by so many quarters
     */
    public static function cut(array $runs, float $fs, float $lengthS, array $byHand = [], int $late = 0, int $apart = 1): self
    {
        $n = Fft::sizeFor((int) ceil($lengthS * $fs * 0.8));
        $hop = $apart * intdiv($n, 4);
        $fft = Fft::ofSize($n);
        $bins = self::bins($n, $fs);
        $taper = HannWindow::ofSize($n)->weights;
        $turns = self::turns($late / $n, $bins);
        $used = $sizes = $all = [];
        $excluded = array_fill_keys(array_column(Exclusion::cases(), 'value'), 0);
        foreach ($runs as [$x, $y, $start]) {
            if (\count($x) < $n + $late) {
                ++$excluded[Exclusion::TooShort->value];
                continue;
            }
            for ($at = 0, $last = \count($x) - $n - $late; $at <= $last; $at += $hop) {
                $a = \array_slice($x, $at, $n);
                $square = $size = 0.0;
                foreach ($a as $i => $v) {
                    $square += $v * $v;
                    // Under the taper: a move at the edge of a window hardly counts in it.
                    $tapered = abs($v) * $taper[$i];
                    if ($tapered > $size) {
                        $size = $tapered;
                    }
                }
                $why = null;
                $atS = $start + $at / $fs;
                if (self::isByHand($byHand, $atS, $hop / $fs)) {
                    $why = Exclusion::ByHand;
                } elseif (sqrt($square / $n) < self::LEAST_INPUT_DPS) {
                    $why = Exclusion::TooStill;
                } else {
                    $spectra = self::turned(CrossSpectra::of($fft, $a, \array_slice($y, $at + $late, $n), $taper, $bins), $turns);
                    $coherence = self::coherence($spectra);
                    if ($coherence < self::LEAST_COHERENCE) {
                        $why = Exclusion::Astray;
                    } else {
                        $used[] = $spectra + ['weight' => $coherence];
                        $sizes[] = $size;
                    }
                }
                if (null !== $why) {
                    ++$excluded[$why->value];
                }
                $all[] = new StepWindow($atS, $size, $why);
            }
        }

        return new self($n, $hop, $used, $excluded, $sizes, $all);
    }

    /** How many bins of a transform are looked at. */
    public static function bins(int $n, float $fs): int
    {
        return min(intdiv($n, 2), (int) floor((self::TOP_HZ * $n) / $fs));
    }

    /** Flight time that the used windows cover, about. */
    public function seconds(float $fs): float
    {
        return (\count($this->used) * $this->hop) / $fs;
    }

    /**
     * @param float $share of the window that the rate's was later
     *
     * @return list<array{float, float}> cosine and sine of what that turns each bin by
     */
    private static function turns(float $share, int $bins): array
    {
        $turns = [];
        for ($k = 0; $k <= $bins; ++$k) {
            $turns[] = [cos(2 * \M_PI * $k * $share), -sin(2 * \M_PI * $k * $share)];
        }

        return $turns;
    }

    /**
     * @param array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>} $s
     * @param list<array{float, float}>                                                 $turns
     *
     * @return array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>} as if the rate's had not been later
     */
    private static function turned(array $s, array $turns): array
    {
        $cr = $ci = [];
        foreach ($s['cr'] as $k => $re) {
            $im = $s['ci'][$k];
            [$c, $d] = $turns[$k];
            $cr[] = $re * $c - $im * $d;
            $ci[] = $re * $d + $im * $c;
        }

        return ['xx' => $s['xx'], 'yy' => $s['yy'], 'cr' => $cr, 'ci' => $ci];
    }

    /** @param list<float> $byHand */
    private static function isByHand(array $byHand, float $atS, float $hopS): bool
    {
        foreach ($byHand as $s) {
            if ($s > $atS - 1e-3 && $s < $atS + $hopS - 1e-3) {
                return true;
            }
        }

        return false;
    }

    /**
     * Coherence within one window, smoothed over neighbouring bins, averaged where the input has its power.
     *
     * @param array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>} $s
     */
    private static function coherence(array $s): float
    {
        $sum = $weight = 0.0;
        for ($k = 0, $n = \count($s['xx']) - 4; $k < $n; $k += 2) {
            $a = $b = $c = $d = 0.0;
            for ($j = $k; $j < $k + 4; ++$j) {
                $a += $s['xx'][$j];
                $b += $s['yy'][$j];
                $c += $s['cr'][$j];
                $d += $s['ci'][$j];
            }
            $sum += $b > 0 && $a > 0 ? ($c * $c + $d * $d) / $b : 0.0;
            $weight += $a;
        }

        return $weight > 0 ? $sum / $weight : 0.0;
    }
}
