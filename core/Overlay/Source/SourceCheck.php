<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Source;

/** Whether what is shown follows what is: both are looked at over a while in which the latter changes. */
final readonly class SourceCheck
{
    /** What is has to move by this share to tell anything. */
    private const MOVES = 0.03;

    /** Shown moves by less than this share of what is moves: it stands still. */
    private const STILL = 0.1;

    /** Shown and what is may differ by this share. */
    private const DIFFERS = 0.15;

    /**
     * @param list<array{float, float}> $looks shown, and what it should show
     */
    public static function of(array $looks): SourceVerdict
    {
        if (\count($looks) < 2) {
            return SourceVerdict::CannotTell;
        }
        [$shown, $true] = [array_column($looks, 0), array_column($looks, 1)];
        $size = max(1e-6, max(array_map(abs(...), $true)));
        $moved = max($true) - min($true);
        if ($moved < self::MOVES * $size) {
            $off = max(array_map(static fn (array $l): float => abs($l[0] - $l[1]), $looks));

            return $off > self::DIFFERS * $size ? SourceVerdict::Wrong : SourceVerdict::CannotTell;
        }
        if (max($shown) - min($shown) < self::STILL * $moved) {
            return SourceVerdict::Stuck;
        }
        foreach ($looks as [$s, $t]) {
            if (abs($s - $t) > self::DIFFERS * $size) {
                return SourceVerdict::Wrong;
            }
        }

        return SourceVerdict::Follows;
    }
}
