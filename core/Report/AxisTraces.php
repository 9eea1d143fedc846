<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;

/** What was asked of an axis and how it turned, unpacked once for all who look at it; gap-free runs, deg/s, null where not logged. */
final readonly class AxisTraces
{
    /**
     * @param list<list<float>>|null $set
     * @param list<list<float>>|null $measured
     * @param list<list<float>>|null $filtered
     */
    private function __construct(
        public FlightLog $log,
        public Axis $axis,
        public ?array $set,
        public ?array $measured,
        public ?array $filtered,
    ) {
    }

    public static function of(FlightLog $log, Axis $axis): self
    {
        $runs = static fn (string $name): ?array => $log->has($name) ? $log->runs($name) : null;

        return new self(
            $log,
            $axis,
            $runs(Traces::setpoint($axis)),
            $runs(Traces::measuredRate($axis)),
            $runs(Traces::filteredRate($axis)),
        );
    }

    /** @return list<list<float>>|null the rate nearest the rotation itself: the filtered one comes later by the filters' delay */
    public function rotation(): ?array
    {
        return $this->measured ?? $this->filtered;
    }

    /** @return list<list<float>>|null the rate that the controller saw */
    public function asFlown(): ?array
    {
        return $this->filtered ?? $this->measured;
    }
}
