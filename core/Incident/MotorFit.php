<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Fact\Stored;

/** How well the loss of one motor explains what the craft did. */
final readonly class MotorFit
{
    public function __construct(public string $place, public float $fit)
    {
    }

    /** @return array{place: string, fit: float} */
    public function toArray(): array
    {
        return ['place' => $this->place, 'fit' => $this->fit];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->text('place'), $data->number('fit'));
    }
}
