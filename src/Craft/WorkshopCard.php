<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Ortholex\Core\Airframe\Frame;

/** One craft in the Workshop. */
final readonly class WorkshopCard
{
    /** @param list<NextStep> $steps */
    public function __construct(public Craft $craft, public array $steps, public bool $linked, public Frame $frame, public int $logs)
    {
    }
}
