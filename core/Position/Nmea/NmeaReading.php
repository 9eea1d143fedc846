<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Nmea;

use Ortholex\Core\Position\Wander;

/** All that a stretch of NMEA 0183 says. */
final readonly class NmeaReading
{
    /**
     * @param list<Fix>       $fixes      a moment each, in their order, with or without a fix
     * @param list<Satellite> $satellites in view at last
     * @param int             $whole      sentences that were understood
     * @param int             $broken     sentences torn, or that contradict their neighbours
     * @param int             $unknown    whole ones of another type
     */
    public function __construct(
        public array $fixes,
        public array $satellites,
        public int $whole,
        public int $broken,
        public int $unknown,
    ) {
    }

    /** What stands at the end. */
    public function last(): ?Fix
    {
        return [] === $this->fixes ? null : $this->fixes[\count($this->fixes) - 1];
    }

    /** @return list<Fix> those with a fix */
    public function there(): array
    {
        return array_values(array_filter($this->fixes, static fn (Fix $f): bool => $f->isThere()));
    }

    /** Satellites that the last fix rests on. */
    public function used(): int
    {
        $there = $this->there();

        return [] === $there ? 0 : $there[\count($there) - 1]->used;
    }

    /** From the first moment to the first fix in space, s; null where none came. */
    public function firstFixS(): ?float
    {
        foreach ($this->fixes as $fix) {
            if ($fix->isInSpace()) {
                return $fix->timeS - $this->fixes[0]->timeS;
            }
        }

        return null;
    }

    public function wander(): ?Wander
    {
        return Wander::of(array_map(static fn (Fix $f): array => [(float) $f->latDeg, (float) $f->lonDeg], $this->there()));
    }
}
