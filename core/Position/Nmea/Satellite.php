<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Nmea;

/** One satellite in view. */
final readonly class Satellite
{
    /**
     * @param string     $system       two letters of its talker: GP, GL, GA, GB
     * @param float|null $elevationDeg over the horizon; null while it is not known
     * @param float|null $azimuthDeg   from true north, clockwise
     * @param float|null $strengthDbHz carrier over noise; null while it is not tracked
     */
    public function __construct(
        public string $system,
        public int $number,
        public ?float $elevationDeg,
        public ?float $azimuthDeg,
        public ?float $strengthDbHz,
        public bool $used = false,
    ) {
    }

    public function used(bool $used): self
    {
        return new self($this->system, $this->number, $this->elevationDeg, $this->azimuthDeg, $this->strengthDbHz, $used);
    }
}
