<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** A line in a noise map: noise that stands at its frequency, or climbs with throttle. */
final readonly class Ridge
{
    public const CLIMBING = 'climbing';
    public const STANDING = 'standing';
    public const CANNOT_TELL = 'cannot tell';

    /**
     * @param self::*  $kind
     * @param float    $hz       in the middle of the throttle range it was seen over
     * @param int|null $harmonic of its family of climbing ridges, 1 for the first
     * @param float    $db       highest power density along it
     */
    public function __construct(
        public string $kind,
        public string $axis,
        public float $hzAtZero,
        public float $hzPerPct,
        public float $hz,
        public ?int $harmonic,
        public float $db,
        public float $fromPct,
        public float $toPct,
    ) {
    }

    public function hzAt(float $throttlePct): float
    {
        return $this->hzAtZero + $this->hzPerPct * $throttlePct;
    }

    public function inFamily(int $harmonic): self
    {
        return new self($this->kind, $this->axis, $this->hzAtZero, $this->hzPerPct, $this->hz, $harmonic, $this->db, $this->fromPct, $this->toPct);
    }
}
