<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Delay;

use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;

/**
 * What the command low-pass costs and buys: its delay at 10 Hz against what is left of the receiver's steps, which is the filtered
 * staircase of frames less the straight lines between them, both delays taken off.
 */
final readonly class CommandLowPass
{
    public const LOWEST_HZ = 5.0;
    public const HIGHEST_HZ = 250.0;
    private const RATE_HZ = 2000.0;
    private const POINTS = 40;

    /** @param non-empty-list<array{hz: float, delay_ms: float, residue_pct: float}> $curve by rising cutoff; residue in % of full stick */
    private function __construct(public array $curve)
    {
    }

    /**
     * @param list<float> $frames  one stick, −1 to 1, as each frame told it
     * @param float       $frameHz how often they came
     */
    public static function trade(array $frames, float $frameHz): self
    {
        [$stairs, $lines] = self::commands($frames, $frameHz);
        $point = static fn (float $hz): array => ['hz' => $hz] + self::point($hz, $stairs, $lines, $frameHz);
        $curve = [$point(self::LOWEST_HZ)];
        for ($i = 1; $i < self::POINTS; ++$i) {
            $curve[] = $point(self::LOWEST_HZ * (self::HIGHEST_HZ / self::LOWEST_HZ) ** ($i / (self::POINTS - 1)));
        }

        return new self($curve);
    }

    /**
     * @param list<float> $frames
     *
     * @return array{delay_ms: float, residue_pct: float} at one cutoff
     */
    public static function at(float $hz, array $frames, float $frameHz): array
    {
        return self::point($hz, ...[...self::commands($frames, $frameHz), $frameHz]);
    }

    /** The point of the curve that is farthest from the straight line between its ends, each axis over its own range. */
    public function knee(): float
    {
        $x = array_column($this->curve, 'delay_ms');
        $y = array_column($this->curve, 'residue_pct');
        [$wide, $tall] = [max(1e-9, max($x) - min($x)), max(1e-9, max($y) - min($y))];
        $last = \count($x) - 1;
        $best = 0;
        $farthest = -1.0;
        foreach ($this->curve as $i => $point) {
            $along = ($point['delay_ms'] - $x[0]) / $wide;
            $up = ($point['residue_pct'] - $y[0]) / $tall;
            $far = abs($along * (($y[$last] - $y[0]) / $tall) - $up * (($x[$last] - $x[0]) / $wide));
            if ($far > $farthest) {
                [$best, $farthest] = [$i, $far];
            }
        }

        return $this->curve[$best]['hz'];
    }

    /**
     * Sticks as a hand moves them in flight when no log is at hand: moves of a tenth of a second and slower ones, one after the other.
     *
     * @return list<float> frames, −1 to 1
     */
    public static function standardMove(float $frameHz): array
    {
        $targets = [[0.2, 0.7, 0.10], [0.6, -0.5, 0.12], [1.0, 0.25, 0.2], [1.5, 0.9, 0.09], [1.9, 0.0, 0.15], [2.3, -0.3, 0.3]];
        $frames = [];
        $n = (int) (3.0 * $frameHz);
        for ($i = 0; $i < $n; ++$i) {
            $t = $i / $frameHz;
            $from = $to = 0.0;
            $share = 1.0;
            foreach ($targets as [$begin, $target, $length]) {
                if ($t >= $begin) {
                    [$from, $to, $share] = [$to, $target, min(1.0, ($t - $begin) / $length)];
                }
            }
            $frames[] = $from + ($to - $from) * $share ** 3 * (10 + $share * (6 * $share - 15));
        }

        return $frames;
    }

    /**
     * @param list<float> $frames
     *
     * @return array{list<float>, list<float>} the staircase, and the lines between frames, at the rate of the reckoning
     */
    private static function commands(array $frames, float $frameHz): array
    {
        $per = self::RATE_HZ / $frameHz;
        $stairs = $lines = [];
        $last = \count($frames) - 1;
        for ($i = 0, $n = (int) ($last * $per); $i < $n; ++$i) {
            $at = $i / $per;
            $k = min($last - 1, (int) $at);
            $stairs[] = $frames[$k];
            $lines[] = $frames[$k] + ($frames[$k + 1] - $frames[$k]) * ($at - $k);
        }

        return [$stairs, $lines];
    }

    /**
     * @param list<float> $stairs
     * @param list<float> $lines
     *
     * @return array{delay_ms: float, residue_pct: float}
     */
    private static function point(float $hz, array $stairs, array $lines, float $frameHz): array
    {
        $chain = FilterChain::of(self::RATE_HZ, FilterStage::secondOrder($hz, self::RATE_HZ));
        $out = $chain->run($stairs);
        // Of the phase, as a cutoff below it would turn the group's about.
        $delay = $chain->phaseDelay(CommandDelay::AT_HZ);
        // A frame is told until the next: the staircase itself is half a frame behind the lines.
        $behind = ($delay + 0.5 / $frameHz) * self::RATE_HZ;
        // A slow filter smooths the move itself: what is left of the steps is what the same filter leaves of the lines, taken off.
        $smooth = $chain->run($lines);
        $half = (0.5 / $frameHz) * self::RATE_HZ;
        $sum = 0.0;
        $count = 0;
        for ($i = (int) ceil($behind) + 1, $n = \count($out); $i < $n; ++$i) {
            $at = $i - $half;
            $k = (int) $at;
            $line = $smooth[$k] + ($smooth[min($k + 1, $n - 1)] - $smooth[$k]) * ($at - $k);
            $sum += ($out[$i] - $line) ** 2;
            ++$count;
        }

        return ['delay_ms' => 1000 * $delay, 'residue_pct' => $count > 0 ? 100 * sqrt($sum / $count) : 0.0];
    }
}
