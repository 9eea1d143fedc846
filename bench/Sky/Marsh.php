<?php

declare(strict_types=1);

namespace Ortholex\Bench\Sky;

use Ortholex\Core\Position\Magnetic\MagneticField;
use Ortholex\Core\Position\Magnetic\MagneticModel;

/** Where the bench stands and its craft fly: a place, and the earth's field there in the autumn that it was built. */
final readonly class Marsh
{
    public const LAT_DEG = 54.9;
    public const LON_DEG = -3.4;
    public const HEIGHT_M = 6.0;
    private const SINCE = '2026-11-15';

    public static function earth(): MagneticField
    {
        return MagneticModel::load()->at(self::LAT_DEG, self::LON_DEG, new \DateTimeImmutable(self::SINCE), self::HEIGHT_M);
    }
}
