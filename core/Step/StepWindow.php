<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Fact\Stored;

/** One window of a flight that was looked at for the step response. */
final readonly class StepWindow
{
    /**
     * @param float          $atS     when it begins
     * @param float          $sizeDps largest |setpoint| in it, under its taper
     * @param Exclusion|null $why     null where it was used
     */
    public function __construct(public float $atS, public float $sizeDps, public ?Exclusion $why)
    {
    }

    /** @return array{at_s: float, size_dps: float, why: string} why is empty where it was used */
    public function toArray(): array
    {
        return ['at_s' => round($this->atS, 4), 'size_dps' => round($this->sizeDps, 1), 'why' => $this->why->value ?? ''];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->number('at_s'), $data->number('size_dps'), Exclusion::tryFrom($data->text('why')));
    }
}
