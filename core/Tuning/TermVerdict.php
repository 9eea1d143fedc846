<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Signal\RealFft;
use Ortholex\Core\Signal\Statistics;

/**
 * P or D? In windows of a second: P that swings at one frequency above 8 Hz is proportional oscillation; D that is
 * broad, irregular and over P is noise through the derivative. While the second stands nothing is said of the first.
 */
final readonly class TermVerdict
{
    private const FROM_HZ = 8.0;

    /** A slow swing, below the above, is looked for in windows of so long; the stick must not hold it itself, by this ratio of power. */
    private const SLOW_FROM_HZ = 2.0;

    /** It reaches over where the quick ones begin: a peak at the very edge is seen by neither of two that only meet. */
    private const SLOW_TO_HZ = 12.0;

    private const SLOW_WINDOW_S = 4.0;
    private const NOT_ASKED = 4.0;
    private const LEAST_SLOW_DPS = 10.0;

    /** Outputs at their ends for this share of the flight: what looks clean is the motors' end, not the tune. */
    private const AT_ENDS = 0.4;

    /** A loop of P swings below this; a narrow line above is a frame or a motor, which the noise map names. */
    private const TO_HZ = 80.0;

    private const RATE_HZ = 1000.0;
    private const SLOW_RATE_HZ = 250.0;

    /** Share of P's power above 8 Hz that lies around its peak, for it to be one frequency. */
    private const NARROW = 0.55;

    /** Spread of the period, against its mean, that is still regular. */
    private const REGULAR = 0.22;

    /** Rotation at that frequency which matters, deg/s RMS. */
    private const LEAST_SWING_DPS = 4.0;

    /** Share of D's power above 60 Hz, and flatness of its spectrum there, for it to be noise. */
    private const HIGH_SHARE = 0.55;

    private const FLAT = 0.18;

    /** Power of D against all of P's, moves included, from which noise matters. */
    private const OVER_P = 0.6;

    /** Noise of D below this, % RMS, warms no motor. */
    private const LEAST_NOISE = 3.0;

    /** An axis has a verdict when this share of its windows has. */
    private const LEAST_SHARE = 0.15;

    private function __construct(
        public TermState $verdict,
        public ?float $hz,
        public float $share,
        public ?float $worstAtS,
        public int $windows,
    ) {
    }

    /** So many samples are averaged into one before anything is looked for: traces may come in like that. */
    public static function factor(float $rateHz): int
    {
        return max(1, (int) floor($rateHz / self::RATE_HZ));
    }

    /**
     * @param list<list<float>>      $p        P by gap-free run, %, or anything proportional to it
     * @param list<list<float>>      $d        D likewise, in the same unit as P
     * @param list<list<float>>      $rate     deg/s
     * @param list<float>            $startsS  when each run starts
     * @param list<list<float>>      $set      what was asked, deg/s; empty where it was not logged
     * @param float                  $atEnds   share of the flight with outputs at their ends
     */
    public static function of(
        array $p,
        array $d,
        array $rate,
        array $startsS,
        float $rateHz,
        array $set = [],
        float $atEnds = 0.0,
    ): self {
        $factor = self::factor($rateHz);
        $fs = $rateHz / $factor;
        $n = 2 ** (int) round(log($fs, 2));
        $fft = RealFft::ofSize($n);
        $hann = HannWindow::ofSize($n)->weights;
        $found = [TermState::Oscillation->value => [], TermState::Noise->value => []];
        $windows = 0;
        foreach ($p as $r => $run) {
            $pp = Statistics::decimated($run, $factor);
            $dd = Statistics::decimated($d[$r], $factor);
            $gg = Statistics::decimated($rate[$r], $factor);
            for ($at = 0, $last = \count($pp) - $n; $at <= $last; $at += intdiv($n, 2)) {
                ++$windows;
                $P = self::power($fft, $hann, \array_slice($pp, $at, $n));
                $D = self::power($fft, $hann, \array_slice($dd, $at, $n));
                $atS = $startsS[$r] + $at / $fs;
                if (self::isNoise($P, $D, $fs / $n)) {
                    $found[TermState::Noise->value][] = ['at' => $atS, 'hz' => null, 'size' => array_sum($D)];
                    continue;
                }
                $swing = static fn (): array => self::power($fft, $hann, \array_slice($gg, $at, $n));
                $hz = self::oscillates($P, $swing, \array_slice($pp, $at, $n), $fs);
                if (null !== $hz) {
                    $found[TermState::Oscillation->value][] = ['at' => $atS, 'hz' => $hz, 'size' => array_sum($P)];
                }
            }
        }
        if ($windows < 4) {
            return new self(TermState::CannotTell, null, 0.0, null, $windows);
        }
        foreach ([TermState::Noise, TermState::Oscillation] as $verdict) {
            $share = \count($found[$verdict->value]) / $windows;
            if ($share >= self::LEAST_SHARE) {
                usort($found[$verdict->value], static fn (array $a, array $b): int => $b['size'] <=> $a['size']);
                $hz = array_values(array_filter(array_column($found[$verdict->value], 'hz'), static fn (?float $f): bool => null !== $f));

                return new self($verdict, [] === $hz ? null : Statistics::median($hz), $share, $found[$verdict->value][0]['at'], $windows);
            }
        }

        $slow = [] === $set ? null : self::slowly($p, $rate, $set, $startsS, $rateHz);
        $told = \count($found[TermState::Noise->value]) + \count($found[TermState::Oscillation->value]);

        return $slow ?? ($atEnds > self::AT_ENDS
            ? new self(TermState::CannotTell, null, 0.0, null, $windows)
            : new self(TermState::Clean, null, 1 - $told / $windows, null, $windows));
    }

    /**
     * A swing between 2 and 12 Hz that the stick did not ask for.
     *
     * @param list<list<float>> $p
     * @param list<list<float>> $rate
     * @param list<list<float>> $set
     * @param list<float>       $startsS
     */
    private static function slowly(array $p, array $rate, array $set, array $startsS, float $rateHz): ?self
    {
        $factor = max(1, (int) floor($rateHz / self::SLOW_RATE_HZ));
        $fs = $rateHz / $factor;
        $n = 2 ** (int) round(log(self::SLOW_WINDOW_S * $fs, 2));
        $fft = RealFft::ofSize($n);
        $hann = HannWindow::ofSize($n)->weights;
        $binHz = $fs / $n;
        $first = (int) ceil(self::SLOW_FROM_HZ / $binHz);
        $last = (int) floor(self::SLOW_TO_HZ / $binHz);
        $found = [];
        $windows = 0;
        foreach ($rate as $r => $run) {
            $w = Statistics::decimated($run, $factor);
            $x = Statistics::decimated($set[$r], $factor);
            $pp = Statistics::decimated($p[$r], $factor);
            for ($at = 0, $end = \count($w) - $n; $at <= $end; $at += intdiv($n, 2)) {
                ++$windows;
                $W = self::power($fft, $hann, \array_slice($w, $at, $n));
                $band = \array_slice($W, $first, $last - $first + 1, true);
                $k = [] === $band ? 0 : (int) array_search(max($band), $band, true);
                if ($k <= $first || $k >= $last) {
                    continue;
                }
                $reach = max(2, (int) round(0.15 * $k));
                $around = array_sum(\array_slice($W, $k - $reach, 2 * $reach + 1));
                $asked = array_sum(\array_slice(self::power($fft, $hann, \array_slice($x, $at, $n)), $k - $reach, 2 * $reach + 1));
                if (
                    sqrt($around) >= self::LEAST_SLOW_DPS
                    && $around > self::NARROW * array_sum(\array_slice($W, $first))
                    && $around > self::NOT_ASKED * $asked
                    && self::isRegular(\array_slice($pp, $at, $n), $k * $binHz, $fs)
                ) {
                    // Its centre of power, as a bin is half a hertz wide.
                    $hz = 0.0;
                    foreach (\array_slice($W, $k - $reach, 2 * $reach + 1) as $i => $v) {
                        $hz += (($k - $reach + $i) * $binHz * $v) / $around;
                    }
                    $found[] = ['at' => $startsS[$r] + $at / $fs, 'hz' => $hz, 'size' => $around];
                }
            }
        }
        if ($windows < 2 || \count($found) < max(2, self::LEAST_SHARE * $windows)) {
            return null;
        }
        usort($found, static fn (array $a, array $b): int => $b['size'] <=> $a['size']);

        return new self(
            TermState::Oscillation,
            Statistics::median(array_column($found, 'hz')),
            \count($found) / $windows,
            $found[0]['at'],
            $windows,
        );
    }

    public static function none(): self
    {
        return new self(TermState::CannotTell, null, 0.0, null, 0);
    }

    /**
     * @param list<float> $hann
     * @param list<float> $x
     *
     * @return list<float> power by bin, in units² (their sum is the variance)
     */
    private static function power(RealFft $fft, array $hann, array $x): array
    {
        $n = \count($x);
        $mean = array_sum($x) / $n;
        for ($i = 0; $i < $n; ++$i) {
            $x[$i] = ($x[$i] - $mean) * $hann[$i];
        }
        [$re, $im] = $fft->forward($x);
        // Two sides, and the 3/8 of power that a Hann window leaves.
        $scale = 2 / (0.375 * $n * $n);
        for ($k = 1, $half = $n >> 1; $k <= $half; ++$k) {
            $re[$k] = $scale * ($re[$k] * $re[$k] + $im[$k] * $im[$k]);
        }
        $re[0] = 0.0;

        return array_values($re);
    }

    /**
     * @param list<float> $P
     * @param list<float> $D
     */
    private static function isNoise(array $P, array $D, float $binHz): bool
    {
        $from = (int) ceil(self::FROM_HZ / $binHz);
        $high = (int) ceil(60 / $binHz);
        $end = (int) (0.85 * \count($D));
        if ($high + 20 > $end) {
            $high = max($from, intdiv($end, 3));
        }
        $all = array_sum(\array_slice($D, $from));
        // Over P above the moves themselves, and no small matter beside all of P.
        if (
            $all <= 0
            || $all < 1.3 * array_sum(\array_slice($P, $from))
            || $all < self::OVER_P * array_sum($P)
            || $all < self::LEAST_NOISE ** 2
        ) {
            return false;
        }
        $upper = \array_slice($D, $high, $end - $high);
        $sum = array_sum($upper);
        if ($sum < self::HIGH_SHARE * $all) {
            return false;
        }
        // Flatness by bands of eight bins: the geometric over the arithmetic mean; a tone has almost none.
        if ([] === $upper) {
            return false;
        }
        $bands = array_map(static fn (array $b): float => array_sum($b) / \count($b), array_chunk($upper, 8));
        $top = max($bands);
        $bands = array_filter($bands, static fn (float $b): bool => $b > 1e-4 * $top);
        $log = array_sum(array_map('log', $bands)) / \count($bands);

        return exp($log) > (self::FLAT * array_sum($bands)) / \count($bands) && $top < 0.5 * array_sum($bands);
    }

    /**
     * @param list<float>               $P
     * @param \Closure(): list<float>   $rate power of the rate, which is only asked for where P has a peak
     * @param list<float>               $p    the window itself
     */
    private static function oscillates(array $P, \Closure $rate, array $p, float $fs): ?float
    {
        $binHz = $fs / \count($p);
        $from = (int) ceil(self::FROM_HZ / $binHz);
        $upper = \array_slice($P, $from, null, true);
        $all = array_sum($upper);
        if ($all <= 0 || [] === $upper) {
            return null;
        }
        $k = (int) array_search(max($upper), $upper, true);
        if ($k <= $from || $k * $binHz > self::TO_HZ) {
            // Power that only falls from 8 Hz on is the move itself.
            return null;
        }
        $reach = max(2, (int) round(0.1 * $k));
        $around = array_sum(\array_slice($P, max($from, $k - $reach), 2 * $reach + 1));
        if ($around < self::NARROW * $all) {
            return null;
        }
        if (sqrt(array_sum(\array_slice($rate(), max(1, $k - $reach), 2 * $reach + 1))) < self::LEAST_SWING_DPS) {
            return null;
        }
        $l = log(max(1e-12, $P[$k - 1]));
        $m = log(max(1e-12, $P[$k]));
        $r = log(max(1e-12, $P[$k + 1] ?? $P[$k]));
        $curve = $l - 2 * $m + $r;
        $hz = ($k + ($curve < 0 ? (0.5 * ($l - $r)) / $curve : 0.0)) * $binHz;

        return self::isRegular($p, $hz, $fs) ? $hz : null;
    }

    /**
     * Whether the swings around a frequency come at even intervals.
     *
     * @param list<float> $x
     */
    private static function isRegular(array $x, float $hz, float $fs): bool
    {
        // A band of a third of an octave to either side, as the difference of two first-order low-passes each way.
        $a = 1 - exp((-2 * \M_PI * 1.6 * $hz) / $fs);
        $b = 1 - exp((-2 * \M_PI * 0.6 * $hz) / $fs);
        $low = $slow = $x[0];
        $before = 0.0;
        $last = null;
        $periods = [];
        foreach ($x as $i => $v) {
            $low += $a * ($v - $low);
            $slow += $b * ($v - $slow);
            $y = $low - $slow;
            if ($before < 0 && $y >= 0) {
                $at = $i - $y / max(1e-12, $y - $before);
                if (null !== $last) {
                    $periods[] = ($at - $last) / $fs;
                }
                $last = $at;
            }
            $before = $y;
        }
        if (\count($periods) < 4) {
            return false;
        }
        sort($periods);
        // The middle eight tenths: a single stumble does not make it irregular.
        $cut = (int) (0.1 * \count($periods));
        $middle = \array_slice($periods, $cut, \count($periods) - 2 * $cut);
        $mean = array_sum($middle) / \count($middle);
        $spread = sqrt(array_sum(array_map(static fn (float $v): float => ($v - $mean) ** 2, $middle)) / \count($middle));

        return $spread < self::REGULAR * $mean && abs($mean * $hz - 1) < 0.3;
    }

    /** To the digits that a report carries. */
    public function rounded(): self
    {
        return new self(
            $this->verdict,
            null === $this->hz ? null : round($this->hz, 3),
            round($this->share, 4),
            null === $this->worstAtS ? null : round($this->worstAtS, 3),
            $this->windows,
        );
    }

    /** @return array{verdict: string, hz: ?float, share: float, worst_at_s: ?float, windows: int} */
    public function toArray(): array
    {
        return [
            'verdict' => $this->verdict->value,
            'hz' => $this->hz,
            'share' => $this->share,
            'worst_at_s' => $this->worstAtS,
            'windows' => $this->windows,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->choice('verdict', TermState::class),
            $data->optional('hz'),
            $data->number('share'),
            $data->optional('worst_at_s'),
            $data->whole('windows'),
        );
    }
}
