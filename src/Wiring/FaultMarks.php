<?php

declare(strict_types=1);

namespace Ortholex\App\Wiring;

use Ortholex\Core\Wiring\WiringFault;

/** Where the number of each fault stands on the drawing: at its wire or at the head of its part, and none over another. */
final class FaultMarks
{
    public const RADIUS = 8.0;
    private const APART = 2 * self::RADIUS + 2;

    /**
     * @param list<WiringFault>                  $faults
     * @param array<int, array{float, float}>    $atWire where the mark of a wire would stand, by its index
     * @param array<string, array{float, float}> $atPart the same of a part, by its id
     *
     * @return list<array{n: int, x: float, y: float, mind: bool, wire: ?int}>
     */
    public static function of(array $faults, array $atWire, array $atPart): array
    {
        $marks = [];
        foreach ($faults as $i => $fault) {
            $onWire = null !== $fault->wire && isset($atWire[$fault->wire]);
            [$x, $y] = $onWire ? $atWire[$fault->wire] : $atPart[$fault->part] ?? [0.0, 0.0];
            // Several at one place stand side by side, towards the middle of what they are about.
            $step = $onWire || $x > 0 ? self::APART : -self::APART;
            while (self::taken($marks, $x, $y)) {
                $x += $step;
            }
            $marks[] = ['n' => $i + 1, 'x' => $x, 'y' => $y, 'mind' => !$fault->refuses, 'wire' => $onWire ? $fault->wire : null];
        }

        return $marks;
    }

    /** @param list<array{n: int, x: float, y: float, mind: bool, wire: ?int}> $marks */
    private static function taken(array $marks, float $x, float $y): bool
    {
        foreach ($marks as $mark) {
            if (hypot($mark['x'] - $x, $mark['y'] - $y) < self::APART) {
                return true;
            }
        }

        return false;
    }
}
