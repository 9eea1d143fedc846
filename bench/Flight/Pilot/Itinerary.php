<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Pilot;

/** Where a pilot wants to be, by the time since take-off: straight lines between places, landing at the end of the last. */
final readonly class Itinerary
{
    /** Gentle enough to land with, m/s. */
    private const DOWN_MS = 0.7;

    /**
     * @param list<array{float, float, float, float, float}> $places s, north, east and height in m, heading in deg; times rise
     * @param bool                                           $rollsOver roll is held to the right until it falls over, whatever the place
     */
    private function __construct(public array $places, public bool $rollsOver = false)
    {
    }

    /** Lift, hover, small moves to all sides, a slow turn, and down again. */
    public static function maiden(): self
    {
        return self::landing([
            [0.0, 0.0, 0.0, 0.0, 0.0],
            [2.0, 0.0, 0.0, 1.5, 0.0],
            [7.0, 0.0, 0.0, 1.5, 0.0],
            [9.0, 1.5, 0.0, 1.5, 0.0],
            [11.0, 1.5, 0.0, 1.5, 0.0],
            [14.0, -1.0, 0.0, 1.5, 0.0],
            [16.0, 0.0, 0.0, 1.5, 0.0],
            [18.0, 0.0, 1.5, 1.5, 0.0],
            [21.0, 0.0, -1.0, 1.5, 0.0],
            [23.0, 0.0, 0.0, 1.5, 0.0],
            [26.0, 0.0, 0.0, 1.5, 90.0],
            [29.0, 0.0, 0.0, 1.5, 0.0],
            [31.0, 0.0, 0.0, 2.2, 0.0],
            [33.0, 0.0, 0.0, 1.5, 0.0],
            [36.0, 0.0, 0.0, 1.5, 0.0],
        ]);
    }

    /** Out, over two lines of a marsh and back, at five metres a second. */
    public static function survey(): self
    {
        return self::landing([
            [0.0, 0.0, 0.0, 0.0, 0.0],
            [5.0, 0.0, 0.0, 12.0, 0.0],
            [7.0, 0.0, 0.0, 12.0, 0.0],
            [17.0, 50.0, 0.0, 12.0, 0.0],
            [20.0, 50.0, 0.0, 12.0, 90.0],
            [25.0, 50.0, 25.0, 12.0, 90.0],
            [28.0, 50.0, 25.0, 12.0, 180.0],
            [38.0, 0.0, 25.0, 12.0, 180.0],
            [41.0, 0.0, 25.0, 12.0, 270.0],
            [46.0, 0.0, 0.0, 12.0, 270.0],
            [48.0, 0.0, 0.0, 12.0, 360.0],
            [52.0, 0.0, 0.0, 2.0, 360.0],
        ]);
    }

    /** Up to a height and out to a distance, and there it stays. */
    public static function out(float $heightM, float $distanceM): self
    {
        $up = 1.0 + $heightM / 3.0;
        $there = $up + $distanceM / 5.0;

        return new self([
            [0.0, 0.0, 0.0, 0.0, 0.0],
            [$up, 0.0, 0.0, $heightM, 0.0],
            [$there, $distanceM, 0.0, $heightM, 0.0],
            [$there + 3600.0, $distanceM, 0.0, $heightM, 0.0],
        ]);
    }

    /** Armed, and nothing is done: the thumbs stay off. */
    public static function waits(): self
    {
        return new self([[0.0, 0.0, 0.0, -10.0, 0.0], [3600.0, 0.0, 0.0, -10.0, 0.0]]);
    }

    /** On its back: roll is held to the right until it falls over. */
    public static function rolledOver(): self
    {
        return new self([[0.0, 0.0, 0.0, -10.0, 0.0], [3600.0, 0.0, 0.0, -10.0, 0.0]], true);
    }

    /** It stays where it is. */
    public static function stay(float $heightM, float $northM = 0.0, float $eastM = 0.0): self
    {
        return new self([[0.0, $northM, $eastM, $heightM, 0.0], [3600.0, $northM, $eastM, $heightM, 0.0]]);
    }

    /** @param list<array{float, float, float, float, float}> $places */
    public static function landing(array $places): self
    {
        [$t, $north, $east, $height, $heading] = $places[\count($places) - 1];
        $down = $height + 2.0;

        return new self([...$places, [$t + $down / self::DOWN_MS, $north, $east, $height - $down, $heading]]);
    }

    /** Whether its pilot wants it on the ground, after a flight. */
    public function isDown(float $t): bool
    {
        return $this->at(0.0)[0][2] >= 0 && $this->at($t)[0][2] < 0;
    }

    public function endsS(): float
    {
        return $this->places[\count($this->places) - 1][0];
    }

    /**
     * How the thumbs go by it, roughly: forward, sideways, about, and up.
     *
     * @return list<list<float>> roll, pitch, yaw (−1 to 1) and throttle (0 to 1)
     */
    public function sketch(int $seconds, float $hz): array
    {
        $frames = [];
        for ($i = 0, $n = (int) ($seconds * $hz); $i < $n; ++$i) {
            [$at, [$north, $east, $up]] = $this->at($i / $hz);
            $flies = $at[2] > -0.5 ? 0.4 : 0.0;
            $frames[] = [0.4 * $east, -0.15 * $north, 0.0, max(0.0, min(1.0, $flies + 0.08 * $up))];
        }

        return $frames;
    }

    /** @return array{array{float, float, float, float}, array{float, float, float}} place and heading, and how fast place changes */
    public function at(float $t): array
    {
        $n = \count($this->places) - 1;
        for ($i = 0; $i < $n; ++$i) {
            if ($t < $this->places[$i + 1][0]) {
                [$a, $b] = [$this->places[$i], $this->places[$i + 1]];
                $long = $b[0] - $a[0];
                $s = max(0.0, ($t - $a[0]) / $long);
                $mix = static fn (int $k): float => $a[$k] + ($b[$k] - $a[$k]) * $s;

                return [
                    [$mix(1), $mix(2), $mix(3), $mix(4)],
                    [($b[1] - $a[1]) / $long, ($b[2] - $a[2]) / $long, ($b[3] - $a[3]) / $long],
                ];
            }
        }
        $last = $this->places[$n];

        return [[$last[1], $last[2], $last[3], $last[4]], [0.0, 0.0, 0.0]];
    }
}
