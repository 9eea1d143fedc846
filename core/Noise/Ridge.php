<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Stored;

/** A line in a noise map: noise that stands at its frequency, or climbs with throttle. */
final readonly class Ridge
{
    /**
     * @param float    $hz       in the middle of the throttle range it was seen over
     * @param int|null $harmonic of its family of climbing ridges, 1 for the first
     * @param float    $db       highest power density along it
     */
    public function __construct(
        public RidgeKind $kind,
        public Axis $axis,
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
        return $this->as($this->kind, $harmonic);
    }

    /** Not of the frame: the loop itself swings there. */
    public function ofLoop(): self
    {
        return $this->as(RidgeKind::OwnSwing, null);
    }

    private function as(RidgeKind $kind, ?int $harmonic): self
    {
        return new self(
            $kind,
            $this->axis,
            $this->hzAtZero,
            $this->hzPerPct,
            $this->hz,
            $harmonic,
            $this->db,
            $this->fromPct,
            $this->toPct,
        );
    }

    /** To the digits that a report carries. */
    public function rounded(): self
    {
        return new self(
            $this->kind,
            $this->axis,
            round($this->hzAtZero, 3),
            round($this->hzPerPct, 4),
            round($this->hz, 2),
            $this->harmonic,
            round($this->db, 2),
            $this->fromPct,
            $this->toPct,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind->value,
            'axis' => $this->axis->value,
            'hz_at_zero' => $this->hzAtZero,
            'hz_per_pct' => $this->hzPerPct,
            'hz' => $this->hz,
            'harmonic' => $this->harmonic,
            'db' => $this->db,
            'from_pct' => $this->fromPct,
            'to_pct' => $this->toPct,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->choice('kind', RidgeKind::class),
            $data->choice('axis', Axis::class),
            $data->number('hz_at_zero'),
            $data->number('hz_per_pct'),
            $data->number('hz'),
            $data->has('harmonic') ? $data->whole('harmonic') : null,
            $data->number('db'),
            $data->number('from_pct'),
            $data->number('to_pct'),
        );
    }
}
