<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Incident\Motion\FlightRun;
use Ortholex\Core\Incident\Saying\EventCode;

/** An incident in the order of cause and effect. */
final readonly class Timeline
{
    /** Effects are looked for until this long after the last sign. */
    private const AFTER_S = 0.3;

    /** Unasked rotation that is worth a line, deg/s. */
    private const TOLD_DPS = 150.0;

    /**
     * @param list<string> $places of the motors
     *
     * @return list<IncidentEvent> in order of time
     */
    public static function of(FlightRun $run, int $onset, int $to, array $places, ?string $lost): array
    {
        $at = static fn (int $i): float => round($run->timeAt($i), 3);
        $first = null === $lost ? Fact::of(EventCode::RotationBegins) : Fact::of(EventCode::MotorStopsPushing, place: $lost);
        $events = [new IncidentEvent($at($onset), $first)];
        $end = min($run->count() - 1, $to + $run->steps(self::AFTER_S));
        foreach ([] === $run->unasked ? [] : Axis::cases() as $axis) {
            $k = $axis->index();
            for ($i = $onset; $i <= $end; ++$i) {
                if (abs($run->unasked[$k][$i]) > self::TOLD_DPS) {
                    $dps = $run->rate[$k][$i];
                    $events[] = new IncidentEvent($at($i), Fact::of(self::way($axis, $dps > 0), axis: $axis, dps: round($dps)));
                    break;
                }
            }
        }
        foreach ($run->outputs as $m => $output) {
            for ($i = $onset; $i <= $end; ++$i) {
                if (($output[$i] ?? 0) >= Incidents::FULL * $run->topPct) {
                    $events[] = new IncidentEvent($at($i), Fact::of(EventCode::CalledForFull, place: $places[$m]));
                    break;
                }
            }
        }
        usort($events, static fn (IncidentEvent $a, IncidentEvent $b): int => $a->atS <=> $b->atS);

        return $events;
    }

    private static function way(Axis $axis, bool $positive): EventCode
    {
        return match ($axis) {
            Axis::Roll => $positive ? EventCode::RollsRight : EventCode::RollsLeft,
            Axis::Pitch => $positive ? EventCode::LiftsNose : EventCode::DropsNose,
            Axis::Yaw => $positive ? EventCode::TurnsRight : EventCode::TurnsLeft,
        };
    }
}
