<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\LogStored;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;

/** Looks at each log as it comes in. */
final readonly class AnalysisOnArrival
{
    public function __construct(private AnalysisStore $analyses)
    {
    }

    #[AsEventListener]
    public function onStored(LogStored $event): void
    {
        $this->analyses->compute($event->log);
    }
}
