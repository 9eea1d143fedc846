<?php

declare(strict_types=1);

namespace Ortholex\App\Incident;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Incident\Incident;

/** What sheet 55 shows. */
final readonly class IncidentsView
{
    /**
     * @param list<Log>                $logs
     * @param list<Incident>           $incidents
     */
    public function __construct(
        public array $logs,
        public ?Log $log,
        public array $incidents,
        public ?Incident $chosen,
        public Airframe $frame,
    ) {
    }

    /** @return array<string, string> the rate that the controller saw, by axis; an axis without any is left out */
    public function rates(): array
    {
        return Traces::ratesOfControl($this->log->traces ?? []);
    }

    /** Sample at a time of the log's own clock. */
    public function sample(float $atS): int
    {
        return $this->log?->sampleAt($atS) ?? 0;
    }
}
