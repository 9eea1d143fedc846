<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

use Ortholex\Core\Craft\SettingSet;

/** A place held while the sticks rest: beyond the dead band they tilt it, and where it is let go, there it stays. */
final class PositionHold
{
    /** Slower than this it has come to rest, m/s. */
    private const RESTS_MS = 0.8;

    private const MOST_MS = 3.0;

    private readonly float $deadBand;
    private readonly float $mostTiltDeg;
    private readonly Drift $drift;

    /** @var array{float, float}|null */
    private ?array $place = null;

    public function __construct(SettingSet $set)
    {
        $this->deadBand = $set->number('hold.dead_band_pct', 8) / 100;
        $this->mostTiltDeg = $set->number('hold.most_tilt_deg', 25);
        $this->drift = new Drift($this->mostTiltDeg);
    }

    /**
     * @param array{float, float} $thumbs roll and pitch, −1 to 1
     * @param array{float, float} $at     north and east, m
     * @param array{float, float} $speed
     *
     * @return array{float, float} roll and pitch, deg
     */
    public function tilt(array $thumbs, array $at, array $speed, float $headingDeg, float $dt): array
    {
        if (max(abs($thumbs[0]), abs($thumbs[1])) > $this->deadBand) {
            $this->place = null;

            return [$thumbs[0] * $this->mostTiltDeg, $thumbs[1] * $this->mostTiltDeg];
        }
        if (null === $this->place) {
            if (hypot(...$speed) > self::RESTS_MS) {
                return $this->drift->tilt([0.0, 0.0], $speed, $headingDeg, $dt);
            }
            $this->place = $at;
        }

        return $this->drift->tilt(Drift::towards($this->place, $at, self::MOST_MS), $speed, $headingDeg, $dt);
    }
}
