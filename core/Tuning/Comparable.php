<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;

/** Whether the gains of one craft mean the same on another, and if not, what they would have to be. */
final readonly class Comparable
{
    /** Sizes within so much of each other are one size. */
    private const ALIKE = 0.1;

    /**
     * @param list<Fact>            $differences what about the other craft makes its gains others
     * @param array<string, float>  $scaled      gains by setting, where both plants are known
     */
    private function __construct(public array $differences, public array $scaled)
    {
    }

    /**
     * @param array<string, AxisPlant> $theirs identified, by axis; empty where no log of it tells
     * @param array<string, AxisPlant> $ours
     */
    public static function of(SettingSet $from, SettingSet $into, array $theirs = [], array $ours = []): self
    {
        $differences = [];
        foreach (
            [
                [NotComparable::Size, 'frame.diagonal_mm'],
                [NotComparable::Props, 'props.diameter_mm'],
                [NotComparable::Cells, 'pack.cells'],
                [NotComparable::LoopRate, 'motors.loop_rate_hz'],
            ] as [$code, $name]
        ) {
            [$a, $b] = [$from->number($name), $into->number($name)];
            if ($a > 0 && $b > 0 && abs($a - $b) > self::ALIKE * max($a, $b)) {
                $differences[] = Fact::of($code, theirs: $a, ours: $b);
            }
        }
        if ($from->text('frame.layout') !== $into->text('frame.layout') && '' !== $from->text('frame.layout')) {
            $differences[] = Fact::of(NotComparable::Layout, theirs: $from->text('frame.layout'), ours: $into->text('frame.layout'));
        }
        $isFilter = static fn (string $name): bool => 1 === preg_match('~^(rate_path|d_path|notch)\.~', $name);
        if ($from->where($isFilter)->toArray() != $into->where($isFilter)->toArray()) {
            $differences[] = Fact::of(NotComparable::Filters);
        }

        return new self($differences, self::scaled($from, $theirs, $ours));
    }

    /**
     * The same loop gain at the same place: gains by the ratio of what a % of output does, D by that of the lags as well, since D is
     * there to make up for the lag (pole cancellation; Åström and Hägglund, Advanced PID Control, ch. 6).
     *
     * @param array<string, AxisPlant> $theirs
     * @param array<string, AxisPlant> $ours
     *
     * @return array<string, float>
     */
    private static function scaled(SettingSet $from, array $theirs, array $ours): array
    {
        $scaled = [];
        foreach (Axis::cases() as $axis) {
            [$a, $b] = [$theirs[$axis->value] ?? null, $ours[$axis->value] ?? null];
            if (null === $a || null === $b || !$from->has("gain.{$axis->value}.p")) {
                continue;
            }
            $push = $a->effectiveness / max(1e-9, $b->effectiveness);
            $slower = ($b->lagS + $b->deadS) / max(1e-6, $a->lagS + $a->deadS);
            foreach (['p' => $push / $slower, 'i' => $push / $slower ** 2, 'd' => $push, 'ff' => $push] as $term => $factor) {
                $name = "gain.{$axis->value}.$term";
                $scaled[$name] = round($from->number($name) * $factor, 2);
            }
        }

        return $scaled;
    }
}
