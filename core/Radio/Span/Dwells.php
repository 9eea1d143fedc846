<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

use Ortholex\Core\Signal\Statistics;

/** Where one channel stayed and how it trembled there; spikes of one or two frames are none of it. */
final readonly class Dwells
{
    /** Shorter than this a stick has not stayed: its way back from an end takes as long. */
    private const LEAST_S = 0.045;

    private const LEAST_SAMPLES = 3;

    /** A level is kept while the smoothed channel is within so many times its tremble, and never less than so much. */
    private const TREMBLES = 4.0;

    private const LEAST_US = 3.0;

    /** Share of the differences from frame to frame that are those of a stick at rest, at the least. */
    private const STILL_SHARE = 0.3;

    /** What a difference of that share is to the deviation of one sample: √2 times the normal's quantile at 0.65. */
    private const STILL_DEVIATIONS = 0.545;

    /**
     * @param list<float> $raw     µs
     * @param list<float> $smooth  the same, the median of five
     * @param float       $tremble about the deviation of one sample at rest, µs
     * @param list<Dwell> $dwells  in time
     */
    private function __construct(public array $raw, public array $smooth, public float $tremble, public array $dwells)
    {
    }

    /** @param list<float> $us one a step of time */
    public static function of(array $us, float $stepS): self
    {
        $smooth = self::smoothed($us);
        $tremble = self::tremble($us);
        $width = max(self::LEAST_US, self::TREMBLES * $tremble);
        $least = max(self::LEAST_SAMPLES, (int) round(self::LEAST_S / $stepS));
        $dwells = [];
        $from = 0;
        $sum = 0.0;
        foreach ($smooth as $i => $value) {
            $count = $i - $from;
            if ($count > 0 && abs($value - $sum / $count) > $width) {
                self::end($dwells, $smooth, $from, $i - 1, $least, $stepS);
                // The next begins where the channel is near enough to where it is now.
                $from = $i;
                $sum = 0.0;
            }
            $sum += $value;
        }
        self::end($dwells, $smooth, $from, \count($smooth) - 1, $least, $stepS);

        return new self($us, $smooth, $tremble, $dwells);
    }

    /** @return list<Dwell> of at least so long */
    public function ofAtLeast(float $seconds): array
    {
        return array_values(array_filter($this->dwells, static fn (Dwell $d): bool => $d->seconds >= $seconds));
    }

    /**
     * The level that the channel holds around a guess: the median of what lies near it, found again from there.
     *
     * @param list<Dwell> $dwells
     */
    public function level(array $dwells, float $guess): float
    {
        $near = 2.5 * max(0.4, $this->tremble) + 0.5;
        for ($round = 0; $round < 4; ++$round) {
            $samples = [];
            foreach ($dwells as $dwell) {
                for ($i = $dwell->from; $i <= $dwell->to; ++$i) {
                    if (abs($this->raw[$i] - $guess) <= $near) {
                        $samples[] = $this->raw[$i];
                    }
                }
            }
            if ([] === $samples) {
                return $guess;
            }
            $guess = Statistics::median($samples);
        }

        return $guess;
    }

    /** Whether a sample is a spike and no tremble. */
    public function isSpike(int $i): bool
    {
        return abs($this->raw[$i] - $this->smooth[$i]) > max(12.0, 8 * $this->tremble);
    }

    /** @param list<Dwell> $dwells
     * @param list<float> $smooth */
    private static function end(array &$dwells, array $smooth, int $from, int $to, int $least, float $stepS): void
    {
        if ($to - $from + 1 >= $least) {
            $level = Statistics::median(\array_slice($smooth, $from, $to - $from + 1));
            $dwells[] = new Dwell($from, $to, $level, ($to - $from + 1) * $stepS);
        }
    }

    /**
     * @param list<float> $us
     *
     * @return list<float>
     */
    private static function smoothed(array $us): array
    {
        $out = [];
        $last = \count($us) - 1;
        for ($i = 0; $i <= $last; ++$i) {
            $five = [];
            for ($k = $i - 2; $k <= $i + 2; ++$k) {
                $five[] = $us[max(0, min($last, $k))];
            }
            sort($five);
            $out[] = Statistics::quantileOfSorted($five, 0.5);
        }

        return $out;
    }

    /** @param list<float> $us */
    private static function tremble(array $us): float
    {
        $steps = [];
        for ($i = 1, $n = \count($us); $i < $n; ++$i) {
            $steps[] = abs($us[$i] - $us[$i - 1]);
        }

        return [] === $steps ? 0.0 : Statistics::quantile($steps, self::STILL_SHARE) / self::STILL_DEVIATIONS;
    }
}
