<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Ortholex\Core\Airframe\Frame;

/** What sheet 55 shows. */
final readonly class IncidentsView
{
    /**
     * @param list<Log>                $logs
     * @param list<array<mixed>>       $incidents as the report has them
     * @param array<mixed>|null        $chosen
     */
    public function __construct(public array $logs, public ?Log $log, public array $incidents, public ?array $chosen, public Frame $frame)
    {
    }

    /** Sample at a time of the log's own clock. */
    public function sample(float $atS): int
    {
        return $this->log?->sampleAt($atS) ?? 0;
    }
}
