<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Mark;

/** One point of the work on a craft, and where it is done. */
final readonly class Point
{
    /** @param int|null $count of what there is, where it is counted rather than done */
    public function __construct(public string $label, public PointState $state, public string $to, public ?int $count = null)
    {
    }
}
