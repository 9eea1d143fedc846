<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Incident\Motion\FlightRun;
use Ortholex\Core\Incident\Motion\RotorLaw;

/** The logged speed of a motor around a moment, and what its output usually gives by the law of the same log. */
final readonly class SpeedTrace
{
    private const BEFORE_S = 0.5;
    private const AFTER_S = 1.0;
    private const STEP_S = 0.008;

    /** The law needs so long before, to have settled. */
    private const LEAD_S = 0.6;

    /**
     * @param float       $fromS  by the log's clock
     * @param list<float> $rpm    as logged
     * @param list<float> $usual  by the law, rpm
     */
    private function __construct(public float $fromS, public float $stepS, public array $rpm, public array $usual)
    {
    }

    /** @return self|null null where its speed was not logged, or where no law was found */
    public static function around(FlightRun $run, ?RotorLaw $law, int $motor, int $step): ?self
    {
        $rpm = $run->rpm($motor);
        if (null === $rpm || null === $law) {
            return null;
        }
        $scale = RotorLaw::scale($law->speeds($run->outputs[$motor], $run->supply(), $run->stepS), $rpm);
        if (null === $scale) {
            return null;
        }
        $from = max(0, $step - $run->steps(self::BEFORE_S));
        $first = max(0, $from - $run->steps(self::LEAD_S));
        $count = min($run->count() - 1, $step + $run->steps(self::AFTER_S)) - $first + 1;
        $usual = $law->speeds(
            \array_slice($run->outputs[$motor], $first, $count),
            \array_slice($run->supply(), $first, $count),
            $run->stepS,
        );
        $every = max(1, $run->nearestSteps(self::STEP_S));
        $is = $asked = [];
        for ($i = $from; $i < $first + $count; $i += $every) {
            $is[] = round($rpm[$i]);
            $asked[] = round($scale * $usual[$i - $first]);
        }

        return new self(round($run->timeAt($from), 4), $every * $run->stepS, $is, $asked);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['from_s' => $this->fromS, 'step_s' => $this->stepS, 'rpm' => $this->rpm, 'usual_rpm' => $this->usual];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->number('from_s'), $data->number('step_s'), $data->numbers('rpm'), $data->numbers('usual_rpm'));
    }
}
