<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Compass;

use Ortholex\Core\Compass\Calibration;
use Ortholex\Core\Compass\MotorDisturbance;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Position\Magnetic\MagneticField;

/** What the motors do to the compass, as it was measured: how far the heading is off at hover and at full. */
final readonly class Disturbed
{
    /** How far it turns the heading; null where nobody knows yet how the earth's field lies. */
    private function __construct(
        public MotorDisturbance $by,
        public ?float $atHoverDeg,
        public ?float $atFullDeg,
        public float $hoverPct,
    ) {
    }

    /** @param mixed $kept readings of the job: output, field in x, y, z and down in x, y, z */
    public static function of(mixed $kept, SettingSet $set, ?MagneticField $earth, float $hoverPct): ?self
    {
        $calibration = Calibration::in($set);
        $readings = [];
        $down = [0.0, 0.0, 1.0];
        foreach (\is_array($kept) ? $kept : [] as $r) {
            $v = \is_array($r) ? array_values(array_filter($r, is_numeric(...))) : [];
            if (7 === \count($v)) {
                $field = $calibration->apply([(float) $v[1], (float) $v[2], (float) $v[3]]);
                $readings[] = [(float) $v[0], $calibration->lies->apply($field)];
                $down = [(float) $v[4], (float) $v[5], (float) $v[6]];
            }
        }
        $by = MotorDisturbance::of($readings);
        if (null === $by) {
            return null;
        }
        if (null === $earth) {
            return new self($by, null, null, $hoverPct);
        }
        $level = hypot($earth->northUt, $earth->eastUt);
        $size = max(1e-9, sqrt($down[0] ** 2 + $down[1] ** 2 + $down[2] ** 2));
        $unit = [$down[0] / $size, $down[1] / $size, $down[2] / $size];

        return new self($by, $by->headingErrorDeg($hoverPct, $unit, $level), $by->headingErrorDeg(100.0, $unit, $level), $hoverPct);
    }

    public function isStop(): bool
    {
        return null !== $this->atHoverDeg && $this->atHoverDeg > MotorDisturbance::STOP_DEG;
    }
}
