<?php

declare(strict_types=1);

namespace Ortholex\App\Traces;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\Passage;
use Ortholex\Core\FlightLog\DerivedTrace;

/** What sheet 52 shows. */
final readonly class TracesView
{
    /**
     * @param list<Log>                                           $logs
     * @param array<string, array{unit: string, words: string}>   $units per trace
     * @param list<Passage>                                       $passages
     * @param array{float, float}|null                            $shown seconds to begin with; all when null
     * @param Log|null                                            $beside locked to it
     * @param array<string, array{x: float, y: float}>            $places of motors in the small drawing
     */
    public function __construct(
        public array $logs,
        public ?Log $log,
        public array $units,
        public array $passages,
        public ?array $shown,
        public ?Log $beside,
        public array $places,
    ) {
    }

    /** @return list<string> what can be drawn of a log: its own traces, and those that follow from them */
    public function tracesOf(Log $log): array
    {
        return [...$log->traces, ...array_keys(DerivedTrace::allOf($log->traces))];
    }
}
