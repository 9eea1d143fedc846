<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\App\Page\DrawnMotor;
use Ortholex\App\Page\FrameDrawing;

/** The spin check as a drawing: the board with an output pad for each motor, and the wires drawn so far; units of the drawing. */
final readonly class SpinDrawing
{
    public const MOTOR = 24.0;
    public const ARC = 34.0;
    private const REACH = 124.0;
    private const HALF_WIDTH = 46.0;
    private const PITCH = 26.0;
    private const ARC_DEG = 125.0;

    /**
     * @param list<SpinPad>    $pads
     * @param list<DrawnMotor> $motors
     * @param list<string>     $round  places as they are met going round clockwise from the nose
     */
    private function __construct(public array $pads, public array $motors, public array $round, public float $halfHeight)
    {
    }

    public static function of(SpinView $spin): self
    {
        $motors = FrameDrawing::of($spin->frame, self::REACH)->motors;
        $at = [];
        foreach ($motors as $m) {
            $at[$m->place] = $m;
        }
        $pads = $spin->pads();
        $left = (int) ceil(\count($pads) / 2);
        $shared = array_count_values(array_map(static fn (ShownSpin $s): string => $s->place, $spin->shown));
        $drawn = [];
        foreach ($pads as $i => $pad) {
            $side = $i < $left ? -1 : 1;
            [$row, $rows] = $side < 0 ? [$i, $left] : [$i - $left, \count($pads) - $left];
            $drawn[] = self::pad($pad, $side * self::HALF_WIDTH, self::PITCH * ($row - ($rows - 1) / 2), $side, $spin, $at, $shared);
        }
        $round = $motors;
        usort($round, static fn (DrawnMotor $a, DrawnMotor $b): int => self::bearing($a) <=> self::bearing($b));

        return new self(
            $drawn,
            $motors,
            array_map(static fn (DrawnMotor $m): string => $m->place, $round),
            (self::PITCH * $left) / 2 + 16,
        );
    }

    /** Arc around a motor that begins at the middle of its group, for +1 clockwise or −1. */
    public function arc(int $direction): string
    {
        [$from, $to] = [self::onArc(-$direction * self::ARC_DEG), $this->arcEnd($direction)];

        return \sprintf('M%.1f %.1fA%d %d 0 1 %d %.1f %.1f', ...$from, ...[self::ARC, self::ARC, $direction > 0 ? 1 : 0], ...$to);
    }

    /** @return array{float, float} where the arc's head stands */
    public function arcEnd(int $direction): array
    {
        return self::onArc($direction * self::ARC_DEG);
    }

    /** Degrees that the head of the arc is turned by, from pointing right. */
    public function headDeg(int $direction): float
    {
        return self::ARC_DEG * $direction + ($direction > 0 ? 0 : 180);
    }

    /**
     * @param array<string, DrawnMotor> $at
     * @param array<string, int>        $shared wires by place
     */
    private static function pad(int $pad, float $x, float $y, int $side, SpinView $spin, array $at, array $shared): SpinPad
    {
        $place = $spin->shown[$pad]->place ?? '';
        $to = $at[$place] ?? null;
        if (null === $to) {
            return new SpinPad($pad, $x, $y, $side, '', '', false, 0, 0);
        }
        $far = max(1.0, hypot($to->x - $x, $to->y - $y));
        $end = [$to->x - (self::MOTOR * ($to->x - $x)) / $far, $to->y - (self::MOTOR * ($to->y - $y)) / $far];
        $out = [$x + $side * 34, $y];
        // Over the board where the motor lies on its other side.
        $in = [$end[0] - 0.3 * ($to->x - $x), $end[1] - 0.3 * ($to->y - $y)];
        $mid = static fn (int $i): float => (([$x, $y][$i] + $end[$i]) + 3 * ($out[$i] + $in[$i])) / 8;

        return new SpinPad(
            $pad,
            $x,
            $y,
            $side,
            $place,
            \sprintf('M%.1f %.1fC%.1f %.1f %.1f %.1f %.1f %.1f', $x, $y, ...$out, ...$in, ...$end),
            $shared[$place] > 1,
            round($mid(0), 1),
            round($mid(1), 1),
        );
    }

    /**
     * @param float $deg clockwise from the nose
     *
     * @return array{float, float}
     */
    private static function onArc(float $deg): array
    {
        return [round(self::ARC * sin(deg2rad($deg)), 1), round(-self::ARC * cos(deg2rad($deg)), 1)];
    }

    private static function bearing(DrawnMotor $m): float
    {
        return fmod(rad2deg(atan2($m->x, -$m->y)) + 360, 360);
    }
}
