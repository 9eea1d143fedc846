<?php

declare(strict_types=1);

namespace Ortholex\Core\Position;

/** East and north in metres about a place, by the meridian and transverse radii of the WGS 84 ellipsoid; good to some kilometres. */
final readonly class LocalMetres
{
    private const MAJOR_M = 6_378_137.0;
    private const E2 = 6.694379990141e-3;

    private function __construct(public float $latDeg, public float $lonDeg, private float $meridianM, private float $transverseM)
    {
    }

    public static function about(float $latDeg, float $lonDeg): self
    {
        $w = 1 - self::E2 * sin(deg2rad($latDeg)) ** 2;

        return new self($latDeg, $lonDeg, (self::MAJOR_M * (1 - self::E2)) / $w ** 1.5, self::MAJOR_M / sqrt($w));
    }

    /** @return array{float, float} north and east, m */
    public function of(float $latDeg, float $lonDeg): array
    {
        $east = fmod($lonDeg - $this->lonDeg + 540, 360) - 180;

        return [deg2rad($latDeg - $this->latDeg) * $this->meridianM, deg2rad($east) * $this->transverseM * cos(deg2rad($this->latDeg))];
    }

    /** @return array{float, float} latitude and longitude, deg */
    public function place(float $northM, float $eastM): array
    {
        return [
            $this->latDeg + rad2deg($northM / $this->meridianM),
            $this->lonDeg + rad2deg($eastM / ($this->transverseM * cos(deg2rad($this->latDeg)))),
        ];
    }
}
