<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\Core\Airframe\Airframe;

/** One craft in the Workshop. */
final readonly class WorkshopCard
{
    /** @param list<NextStep> $steps */
    public function __construct(public Craft $craft, public array $steps, public bool $linked, public Airframe $frame, public int $logs)
    {
    }
}
