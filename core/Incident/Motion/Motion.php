<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

use Ortholex\Core\FlightLog\FlightLog;

/** A log as motion: its stretches, the law of its rotors, and the craft learned from all of it; made once for all who ask. */
final readonly class Motion
{
    /**
     * @param list<FlightRun> $runs
     * @param list<Blocks>    $blocks of the runs
     * @param list<string>    $places of the motors
     * @param RotorLaw|null   $law    by logged speeds; null where none were
     * @param CraftModel|null $model  null when there is too little to learn from
     */
    private function __construct(
        public array $runs,
        public array $blocks,
        public array $places,
        public ?RotorLaw $law,
        public ?CraftModel $model,
    ) {
    }

    public static function of(FlightLog $log): self
    {
        $runs = FlightRun::allOf($log);
        $places = $log->places();
        $blocks = array_map(Blocks::of(...), $runs);
        $law = RotorLaw::ofSpeeds($runs);

        return new self($runs, $blocks, $places, $law, CraftModel::fit($blocks, $places, $law));
    }
}
