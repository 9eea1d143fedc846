<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

use Ortholex\Core\Signal\LinearSystem;

/**
 * Share of each motor in a roll, pitch and yaw command, by pseudo-inverse of the geometry.
 *
 * The effectiveness of a motor is (roll −y, pitch +x, yaw −spin·k) and 1 for lift. Rows are normalised, so that a
 * command of 1 moves the busiest motor by 1. Any frame whose four rows are independent works.
 */
final readonly class Mixer
{
    /** Rows are of size 1, so a pivot smaller than this is rounding alone. */
    private const LEAST_PIVOT = 1e-9;

    /**
     * @param list<array{float, float, float}> $shares per motor: roll, pitch, yaw
     * @param list<float>                      $lift   per motor: share of the lift that tilts nothing, 1 in the mean
     */
    private function __construct(public array $shares, public array $lift)
    {
    }

    /** @throws AirframeError when the motors cannot command roll, pitch, yaw and lift independently */
    public static function of(Airframe $frame, float $yawPerThrust = 0.02): self
    {
        $rows = [[], [], [], []];
        foreach ($frame->motors as $m) {
            $rows[0][] = -$m->y;
            $rows[1][] = $m->x;
            $rows[2][] = -$m->spin * $yawPerThrust;
            $rows[3][] = 1.0;
        }
        foreach ($rows as $r => $row) {
            $peak = max([0.0, ...array_map('abs', $row)]);
            if ($peak <= 0) {
                throw AirframeError::of(AirframeFlaw::CannotCommand, command: ['roll', 'pitch', 'yaw', 'lift'][$r]);
            }
            foreach ($row as $i => $v) {
                $rows[$r][$i] = $v / $peak;
            }
        }
        // Pseudo-inverse of the 4×n matrix B: Bᵀ(BBᵀ)⁻¹.
        $gram = [];
        foreach ($rows as $a) {
            $gram[] = array_map(
                static fn (array $b): float => array_sum(array_map(static fn (float $p, float $q): float => $p * $q, $a, $b)),
                $rows,
            );
        }
        $inverse = LinearSystem::inverse($gram, self::LEAST_PIVOT) ?? throw AirframeError::of(AirframeFlaw::CommandsNotIndependent);
        $columns = [];
        foreach (array_keys($frame->motors) as $i) {
            for ($axis = 0; $axis < 4; ++$axis) {
                $sum = 0.0;
                for ($k = 0; $k < 4; ++$k) {
                    $sum += $rows[$k][$i] * $inverse[$k][$axis];
                }
                $columns[$axis][] = $sum;
            }
        }
        $shares = [];
        $peaks = array_map(static fn (array $c): float => max(array_map('abs', $c)), $columns);
        foreach (array_keys($frame->motors) as $i) {
            $shares[] = [$columns[0][$i] / $peaks[0], $columns[1][$i] / $peaks[1], $columns[2][$i] / $peaks[2]];
        }

        $mean = array_sum($columns[3]) / \count($columns[3]);

        return new self($shares, array_map(static fn (float $v): float => $v / $mean, $columns[3]));
    }
}
