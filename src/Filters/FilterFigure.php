<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

/** One figure of the filters, and what it would be as staged. */
final readonly class FilterFigure
{
    /** @param float|null $staged null while nothing that is staged changes the filters */
    public function __construct(public string $label, public float $now, public ?float $staged, public string $unit)
    {
    }

    public function changes(): bool
    {
        return null !== $this->staged && round($this->staged, 2) !== round($this->now, 2);
    }
}
