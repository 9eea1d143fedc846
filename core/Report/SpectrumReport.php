<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Signal\Peak;

/** What a report says of the spectrum of one rate. */
final readonly class SpectrumReport
{
    /**
     * @param float      $rmsDps residual noise
     * @param list<Peak> $peaks  strongest first
     */
    private function __construct(public float $rmsDps, public array $peaks)
    {
    }

    public static function of(?AxisSpectrum $s): ?self
    {
        return null === $s
            ? null
            : new self(
                round($s->rmsDps, 4),
                array_map(static fn (Peak $p): Peak => new Peak(round($p->hz, 2), round($p->db, 2), $p->prominenceDb), $s->peaks),
            );
    }

    /** @return array{rms_dps: float, peaks: list<array{hz: float, db: float}>} */
    public function toArray(): array
    {
        return [
            'rms_dps' => $this->rmsDps,
            'peaks' => array_map(static fn (Peak $p): array => ['hz' => $p->hz, 'db' => $p->db], $this->peaks),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(?Stored $data): ?self
    {
        return null === $data
            ? null
            : new self(
                $data->number('rms_dps'),
                array_map(static fn (Stored $p): Peak => new Peak($p->number('hz'), $p->number('db'), 0.0), $data->rows('peaks')),
            );
    }
}
