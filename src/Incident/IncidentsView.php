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
    private const BEFORE_S = 0.4;
    private const AFTER_S = 0.8;

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

    /** @return array{from: int, to: int, onset: int} samples to be drawn around the chosen one */
    public function shown(): array
    {
        $at = $this->chosen->atS ?? 0.0;

        return ['from' => $this->sample($at - self::BEFORE_S), 'to' => $this->sample($at + self::AFTER_S), 'onset' => $this->sample($at)];
    }

    /** Milliseconds from the chosen one's onset. */
    public function offsetMs(float $atS): int
    {
        return (int) round(1000 * ($atS - ($this->chosen->atS ?? 0.0)));
    }

    /** How well the loss of this motor explains the rotation; null where it was not tried. */
    public function fitOf(string $place): ?float
    {
        foreach ($this->chosen->ranked ?? [] as $fit) {
            if ($fit->place === $place) {
                return $fit->fit;
            }
        }

        return null;
    }
}
