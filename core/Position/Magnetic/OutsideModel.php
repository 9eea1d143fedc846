<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Magnetic;

/** A date or a place that the model of the earth's field says nothing of. */
final class OutsideModel extends \DomainException
{
    public static function date(\DateTimeImmutable $date): self
    {
        return new self(\sprintf(
            '%s is outside the five years of %s, 2025-01-01 to %s: the model says nothing of it.',
            $date->format('Y-m-d'),
            MagneticModel::NAME,
            MagneticModel::VALID_UNTIL,
        ));
    }

    public static function place(float $latDeg, float $lonDeg): self
    {
        return new self(\sprintf('%g, %g is no place: latitude goes from −90 to 90, longitude from −180 to 180.', $latDeg, $lonDeg));
    }
}
