<?php

declare(strict_types=1);

namespace Ortholex\App\Location;

use Ortholex\App\Book\Craft;
use Ortholex\App\Location\Sky\SeenSky;
use Ortholex\Core\Position\Magnetic\MagneticField;
use Ortholex\Core\Position\Magnetic\MagneticModel;
use Ortholex\Core\Position\Magnetic\OutsideModel;
use Psr\Clock\ClockInterface;

/** The earth's field where a craft was seen last, today. */
final readonly class EarthHere
{
    public function __construct(private ClockInterface $clock)
    {
    }

    /** Null where it never had a fix, or the model is out of date. */
    public function of(Craft $craft): ?MagneticField
    {
        $place = $this->place($craft);
        if (null === $place) {
            return null;
        }
        try {
            return MagneticModel::load()->at($place[0], $place[1], $this->clock->now());
        } catch (OutsideModel) {
            return null;
        }
    }

    /** @return array{float, float}|null latitude and longitude */
    public function place(Craft $craft): ?array
    {
        return SeenSky::of($craft->position)->place;
    }
}
