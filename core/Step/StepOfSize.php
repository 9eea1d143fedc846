<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Fact\Stored;

/** The step of the small, the medium or the large moves alone. */
final readonly class StepOfSize
{
    /**
     * @param float|null $peak    null with too few windows
     * @param float      $uptoDps moves up to this belong to it
     */
    public function __construct(public int $windows, public ?float $peak, public ?float $delayMs, public float $uptoDps)
    {
    }

    /** @return array{windows: int, peak: ?float, delay_ms: ?float, upto_dps: float} */
    public function toArray(): array
    {
        return [
            'windows' => $this->windows,
            'peak' => null === $this->peak ? null : round($this->peak, 4),
            'delay_ms' => null === $this->delayMs ? null : round($this->delayMs, 3),
            'upto_dps' => round($this->uptoDps, 1),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->whole('windows'), $data->optional('peak'), $data->optional('delay_ms'), $data->number('upto_dps'));
    }
}
