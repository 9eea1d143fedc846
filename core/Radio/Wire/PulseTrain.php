<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

use Ortholex\Core\Radio\Protocol\RadioFrame;

/**
 * PPM: short pulses of even length; the distance from one to the next is a channel, and a pause of over 4 ms ends a frame.
 */
final readonly class PulseTrain
{
    private const SYNC_US = 4000.0;
    private const SHORTEST_US = 700.0;
    private const LONGEST_US = 2300.0;
    private const PULSE_US = 300.0;

    /** Longest separator that is still one. */
    private const MOST_PULSE_US = 550.0;

    private const LEAST_CHANNELS = 3;
    private const MOST_CHANNELS = 16;

    /**
     * @param list<array{float, RadioFrame}> $frames when each was complete, µs, and what it says
     * @param bool                           $down   whether its pulses go down from a line that rests high
     */
    private function __construct(public array $frames, public bool $down)
    {
    }

    public static function of(Edges $edges): self
    {
        $down = self::restsHigh($edges);
        $pulse = $down ? 0 : 1;
        $frames = $channels = [];
        $before = null;
        $synced = false;
        foreach ($edges->timesUs as $i => $time) {
            if ($edges->levels[$i] !== $pulse) {
                continue;
            }
            $gap = null === $before ? null : $time - $before;
            $before = $time;
            if (null === $gap) {
                continue;
            }
            if ($gap > self::SYNC_US) {
                if ($synced && \count($channels) >= self::LEAST_CHANNELS && \count($channels) <= self::MOST_CHANNELS) {
                    $frames[] = [$time - $gap, new RadioFrame($channels)];
                }
                $channels = [];
                $synced = true;
            } elseif ($gap < self::SHORTEST_US || $gap > self::LONGEST_US) {
                // One distance that no channel can have spoils its frame.
                $synced = false;
                $channels = [];
            } else {
                $channels[] = $gap;
            }
        }
        // The last frame is whole when its pause has begun and nothing came in it; that is only seen by the next pulse.

        return new self($frames, $down);
    }

    /** Whether the line rests high: the shorter of its two levels is the pulse. */
    private static function restsHigh(Edges $edges): bool
    {
        $at = [0 => [], 1 => []];
        for ($i = 1, $n = $edges->count(); $i < $n; ++$i) {
            $at[$edges->levels[$i - 1]][] = $edges->timesUs[$i] - $edges->timesUs[$i - 1];
        }
        $mean = static fn (array $of): float => [] === $of ? \INF : array_sum($of) / \count($of);

        return $mean($at[0]) < $mean($at[1]);
    }

    /** Whether its separators are short and alike: what tells a pulse train from serial bytes. */
    public static function isLikely(Edges $edges): bool
    {
        $pulse = self::restsHigh($edges) ? 0 : 1;
        $short = $all = 0;
        for ($i = 1, $n = $edges->count(); $i < $n; ++$i) {
            if ($edges->levels[$i - 1] === $pulse) {
                $length = $edges->timesUs[$i] - $edges->timesUs[$i - 1];
                $short += $length > 50 && $length < self::MOST_PULSE_US ? 1 : 0;
                ++$all;
            }
        }

        return $all > 0 && $short >= 0.9 * $all;
    }

    /**
     * One frame as a receiver sends it.
     *
     * @param list<float> $channelsUs
     *
     * @return array{list<float>, list<int>} moments and levels, with a last pulse that ends the last channel
     */
    public static function send(array $channelsUs, float $atUs, bool $down): array
    {
        $times = $levels = [];
        foreach ([...$channelsUs, 0.0] as $us) {
            array_push($times, $atUs, $atUs + self::PULSE_US);
            array_push($levels, $down ? 0 : 1, $down ? 1 : 0);
            $atUs += $us;
        }

        return [$times, $levels];
    }
}
