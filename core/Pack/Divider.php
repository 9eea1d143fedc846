<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

/** The scale of the voltage divider, set by a meter: new = old · meter / reported; with a second point also what is added. */
final readonly class Divider
{
    /** Farther off than this, cells or wiring are wrong, not the scale. */
    public const MOST_OFF = 0.15;

    /** Two points must lie so far apart to tell a slope, V. */
    private const APART_V = 1.0;

    /**
     * @param float $scale   new
     * @param float $ratio   meter over reported: what a reported volt truly is
     * @param float $offsetV what is reported at nought by the two-point line; 0 by one point
     */
    private function __construct(public float $scale, public float $ratio, public float $offsetV)
    {
    }

    /** @throws PackError */
    public static function onePoint(float $oldScale, float $meterV, float $reportedV): self
    {
        self::demandVolts($meterV, $reportedV);
        $ratio = $meterV / $reportedV;
        if (abs($ratio - 1) > self::MOST_OFF) {
            throw PackError::tooFarOff($ratio, $meterV, $reportedV);
        }

        return new self($oldScale * $ratio, $ratio, 0.0);
    }

    /**
     * A line through two points; the scale is its slope, and what it misses at nought is said: a drop in the wiring, or another meter.
     *
     * @param array{float, float} $one   meter and reported, V
     * @param array{float, float} $other
     *
     * @throws PackError
     */
    public static function twoPoints(float $oldScale, array $one, array $other): self
    {
        self::demandVolts(...$one);
        self::demandVolts(...$other);
        if (abs($one[1] - $other[1]) < self::APART_V) {
            throw PackError::tooNear(abs($one[1] - $other[1]));
        }
        $ratio = ($one[0] - $other[0]) / ($one[1] - $other[1]);
        if (abs($ratio - 1) > self::MOST_OFF) {
            throw PackError::tooFarOff($ratio, $one[0], $one[1]);
        }

        return new self($oldScale * $ratio, $ratio, $one[0] - $ratio * $one[1]);
    }

    /** The true voltage at which an alarm set to a level would have come with the old scale. */
    public function alarmedAt(float $levelV): float
    {
        return $levelV * $this->ratio + $this->offsetV;
    }

    /** @throws PackError */
    private static function demandVolts(float $meterV, float $reportedV): void
    {
        foreach (['meter' => $meterV, 'reported' => $reportedV] as $which => $volts) {
            if (!is_finite($volts) || $volts < 0.5) {
                throw PackError::noVolts($which);
            }
        }
    }
}
