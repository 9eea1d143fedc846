<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Control\RateFilters;

/**
 * How far a loop is from oscillating: L = G·F·(P + I/s + D·s·Fd) over frequency, and what is read from it (Åström and Murray, Feedback
 * Systems, ch. 10): gain margin, phase margin, and the modulus margin, the least distance of L from −1.
 */
final readonly class LoopMargins
{
    private const FROM_HZ = 0.2;
    private const PER_DECADE = 180;

    /**
     * @param float|null  $gainDb      how much more gain it takes; null where the phase never comes to −180°
     * @param float|null  $phaseDeg    null where the gain never comes to 1
     * @param float       $modulus     1/max|S|
     * @param float|null  $crossoverHz the highest frequency at which the gain is 1
     * @param list<array{float, float, float}> $curve Hz, and L's real and imaginary part
     */
    private function __construct(
        public ?float $gainDb,
        public ?float $phaseDeg,
        public float $modulus,
        public ?float $crossoverHz,
        public array $curve,
    ) {
    }

    public static function of(AxisPlant $plant, GainSet $gains, RateFilters $filters): self
    {
        $top = min(RateFilters::highestHz($filters->ratePath->rateHz), 1000.0);
        $steps = (int) ceil(self::PER_DECADE * log10($top / self::FROM_HZ));
        $curve = [];
        for ($i = 0; $i <= $steps; ++$i) {
            $hz = self::FROM_HZ * ($top / self::FROM_HZ) ** ($i / $steps);
            $curve[] = [$hz, ...self::loop($plant, $gains, $filters, $hz)];
        }

        return self::read($curve);
    }

    /** @return array{float, float} L at a frequency, real and imaginary part */
    public static function loop(AxisPlant $plant, GainSet $gains, RateFilters $filters, float $hz): array
    {
        $w = 2 * \M_PI * $hz;
        [$gr, $gi] = $plant->response($w);
        [$fr, $fi] = $filters->ratePath->response($hz);
        [$dr, $di] = $filters->dPath->response($hz);
        $kd = $gains->d / 1000;
        $cr = $gains->p / 100 - $kd * $w * $di;
        $ci = -$gains->i / 100 / $w + $kd * $w * $dr;
        [$ar, $ai] = [$fr * $cr - $fi * $ci, $fr * $ci + $fi * $cr];

        return [$gr * $ar - $gi * $ai, $gr * $ai + $gi * $ar];
    }

    /** @param list<array{float, float, float}> $curve */
    private static function read(array $curve): self
    {
        $least = \INF;
        $gainDb = $phaseDeg = $crossover = null;
        $before = $last = null;
        foreach ($curve as [$hz, $re, $im]) {
            $least = min($least, null === $last ? hypot(1 + $re, $im) : self::distance([$last[1] + 1, $last[2]], [$re + 1, $im]));
            $last = [$hz, $re, $im];
            $gain = log(max(1e-12, hypot($re, $im)));
            $angle = atan2($im, $re);
            if (null !== $before) {
                [$hz0, $gain0, $angle0] = $before;
                if (($gain0 > 0) !== ($gain > 0)) {
                    $at = $gain0 / ($gain0 - $gain);
                    $turn = self::between($angle0, $angle, $at);
                    $margin = rad2deg(fmod($turn + 5 * \M_PI, 2 * \M_PI));
                    $margin = $margin > 180 ? $margin - 360 : $margin;
                    // The nearest to −180°, from either side.
                    $phaseDeg = null === $phaseDeg || abs($margin) < abs($phaseDeg) ? $margin : $phaseDeg;
                    $crossover = $hz0 * ($hz / $hz0) ** $at;
                }
                // Through the negative real axis: there the imaginary part changes its sign, on the left.
                if ($angle0 < 0 !== $angle < 0 && abs($angle0) + abs($angle) > \M_PI) {
                    $at = (\M_PI - abs($angle0)) / (2 * \M_PI - abs($angle0) - abs($angle));
                    $margin = (-20 / \M_LN10) * ($gain0 + $at * ($gain - $gain0));
                    $gainDb = null === $gainDb || abs($margin) < abs($gainDb) ? $margin : $gainDb;
                }
            }
            $before = [$hz, $gain, $angle];
        }

        return new self($gainDb, $phaseDeg, $least, $crossover, $curve);
    }

    /**
     * Of the origin from what lies between two points.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private static function distance(array $a, array $b): float
    {
        [$dx, $dy] = [$b[0] - $a[0], $b[1] - $a[1]];
        $along = -($a[0] * $dx + $a[1] * $dy) / max(1e-30, $dx * $dx + $dy * $dy);
        $at = max(0.0, min(1.0, $along));

        return hypot($a[0] + $at * $dx, $a[1] + $at * $dy);
    }

    /** Between two angles by the shorter way. */
    private static function between(float $from, float $to, float $at): float
    {
        $turn = fmod($to - $from + 5 * \M_PI, 2 * \M_PI) - \M_PI;

        return $from + $at * $turn;
    }
}
