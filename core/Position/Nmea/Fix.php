<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Nmea;

/** What a position receiver says of one moment. */
final readonly class Fix
{
    /**
     * @param float      $timeS  of the day, UTC, counted on over midnight
     * @param float|null $latDeg null without a fix
     * @param int        $mode   1 none, 2 in the plane, 3 in space
     * @param int        $used   satellites
     */
    public function __construct(
        public float $timeS,
        public ?float $latDeg,
        public ?float $lonDeg,
        public ?float $heightM,
        public int $mode,
        public int $used,
        public ?float $hdop,
        public ?float $speedMs = null,
        public ?float $courseDeg = null,
    ) {
    }

    public function isThere(): bool
    {
        return null !== $this->latDeg && null !== $this->lonDeg && $this->mode > 1;
    }

    public function isInSpace(): bool
    {
        return $this->isThere() && 3 === $this->mode;
    }
}
