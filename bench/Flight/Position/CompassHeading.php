<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Position;

use Ortholex\Bench\Compass\Needle;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Compass\Calibration;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Position\Magnetic\MagneticField;

/** Which way the board believes its nose to point: its compass as it reads in flight, set right as it is calibrated. */
final class CompassHeading
{
    private const EVERY_S = 0.04;

    /** True heading, deg; null where it has no compass, or does not use it. */
    public ?float $deg = null;

    private float $next = 0.0;

    private function __construct(
        private readonly ?Needle $needle,
        private readonly MagneticField $earth,
        private readonly Calibration $calibration,
        private readonly float $declinationDeg,
    ) {
    }

    public static function of(?Needle $needle, MagneticField $earth, SettingSet $set): self
    {
        return new self(
            $set->flag('compass.enabled') ? $needle : null,
            $earth,
            Calibration::in($set),
            $set->number('compass.declination_deg'),
        );
    }

    /**
     * @param array{float, float, float} $lean roll, pitch and heading as it is, deg
     * @param float                      $pct  mean output of the motors
     */
    public function look(float $t, array $lean, float $pct): void
    {
        if (null === $this->needle || $t < $this->next) {
            return;
        }
        $this->next = $t + self::EVERY_S;
        $turned = Rotation::degrees($lean[0], $lean[1], $lean[2]);
        $down = $turned->undo([0.0, 0.0, 1.0]);
        $magnetic = $this->calibration->heading($this->needle->reads($this->earth, $turned, $pct), [-$down[0], -$down[1], -$down[2]]);
        $this->deg = fmod($magnetic + $this->declinationDeg + 360, 360);
    }
}
