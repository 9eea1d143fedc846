<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Incident\Saying\EventCode;

/** What happened at one moment of an incident. */
final readonly class IncidentEvent
{
    public function __construct(public float $atS, public Fact $what)
    {
    }

    /** @return array{at_s: float, what: array<string, mixed>} */
    public function toArray(): array
    {
        return ['at_s' => $this->atS, 'what' => $this->what->toArray()];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->number('at_s'), Fact::fromArray($data->part('what'), EventCode::class));
    }
}
