<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

use Ortholex\Core\Signal\Statistics;

/** When frames came: how often, how evenly, and how many did not. */
final readonly class FrameTiming
{
    /** A whole pause longer than so many intervals is not counted as lost frames: nobody spoke. */
    private const PAUSE = 200;

    /**
     * @param float|null $medianMs null with fewer than two frames
     * @param float      $spreadMs interquartile range of the distances of frames that followed each other
     * @param int        $missing  frames that should have come in between
     */
    private function __construct(public ?float $medianMs, public float $spreadMs, public int $missing)
    {
    }

    /** @param list<float> $timesUs rising */
    public static function of(array $timesUs): self
    {
        $gaps = [];
        for ($i = 1, $n = \count($timesUs); $i < $n; ++$i) {
            $gaps[] = $timesUs[$i] - $timesUs[$i - 1];
        }
        if ([] === $gaps) {
            return new self(null, 0.0, 0);
        }
        // Where many frames are lost the median is a multiple: the interval is the smallest distance that is met often.
        $least = Statistics::quantile($gaps, 0.05);
        $near = array_values(array_filter($gaps, static fn (float $g): bool => $g < 1.5 * $least));
        $interval = Statistics::median($near);
        $missing = 0;
        foreach ($gaps as $gap) {
            $steps = (int) round($gap / max(1.0, $interval));
            $missing += $steps > 1 && $steps < self::PAUSE ? $steps - 1 : 0;
        }

        return new self(
            $interval / 1000,
            (Statistics::quantile($near, 0.75) - Statistics::quantile($near, 0.25)) / 1000,
            $missing,
        );
    }
}
