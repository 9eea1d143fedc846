<?php

declare(strict_types=1);

namespace Ortholex\App\Incident;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Report\Finding\Certainty;

/** What sheet 55 shows. */
final readonly class IncidentsView
{
    private const BEFORE_S = 0.4;
    private const AFTER_S = 0.8;

    /**
     * @param list<Log>                $logs
     * @param list<Incident>           $incidents
     * @param bool                     $tells     whether the log could show a motor that lost thrust
     */
    public function __construct(
        public array $logs,
        public ?Log $log,
        public array $incidents,
        public ?Incident $chosen,
        public Airframe $frame,
        public bool $tells,
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

    /** @return array{from: float, step: float, rpm: list<float>, usual: list<float>}|null speed of the motor named, from the onset on */
    public function speed(): ?array
    {
        $speed = $this->chosen?->speed;

        return null === $speed
            ? null
            : ['from' => $speed->fromS - $this->chosen->atS, 'step' => $speed->stepS, 'rpm' => $speed->rpm, 'usual' => $speed->usual];
    }

    /** @return list<Incident> something is to be looked at */
    public function grave(): array
    {
        return array_values(array_filter($this->incidents, static fn (Incident $i): bool => $i->kind->isGrave()));
    }

    /** @return array<int, Incident> explained by the flight itself; by their number among all */
    public function explained(): array
    {
        return array_filter($this->incidents, static fn (Incident $i): bool => !$i->kind->isGrave());
    }

    /** How far the motor named is ahead of the others. */
    public function lead(): Certainty
    {
        return Certainty::ofLead($this->chosen->margin ?? 0.0);
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
