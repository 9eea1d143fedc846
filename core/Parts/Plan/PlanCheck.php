<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Wiring\PartRole;

/** What speaks against a choice of parts: what refuses first. */
final class PlanCheck
{
    /** It climbs well when its motors lift twice its weight. */
    private const LIFTS_WELL = 2.0;

    /** Under this it cannot be steered in hover. */
    private const LIFTS_LEAST = 1.2;

    private function __construct()
    {
    }

    /**
     * @param float $gapMm between the nearest props
     * @param float $volts of the full pack
     *
     * @return list<Fact>
     */
    public static function of(CraftPlan $plan, Propulsion $full, float $hover, float $gapMm, float $volts): array
    {
        $lifts = 1 / $hover ** 2;
        $all = $full->amps * $plan->motors();
        $largest = $plan->frame->largestPropMm;
        $soldering = Soldering::of($plan->board->id, $plan->extras);
        $said = [
            [$gapMm < 0, PlanCode::PropsMeet, ['over_mm' => -$gapMm, 'prop_mm' => $plan->prop->diameterMm]],
            [
                $gapMm >= 0 && $plan->prop->diameterMm > $largest,
                PlanCode::PropTooLarge,
                ['prop_mm' => $plan->prop->diameterMm, 'most_mm' => $largest],
            ],
            [
                $plan->motors() > $plan->board->outputs,
                PlanCode::TooManyMotors,
                ['motors' => $plan->motors(), 'board' => $plan->board->name, 'outputs' => $plan->board->outputs],
            ],
            [$lifts < self::LIFTS_LEAST, PlanCode::StaysDown, ['lifts' => $lifts]],
            [
                $volts > $plan->motor->mostV,
                PlanCode::MotorOverVolts,
                ['volts' => $volts, 'most_v' => $plan->motor->mostV, 'name' => $plan->motor->name],
            ],
            [
                $plan->pack->cells > $plan->esc->mostCells,
                PlanCode::EscOverVolts,
                ['cells' => $plan->pack->cells, 'most' => $plan->esc->mostCells, 'name' => $plan->esc->name],
            ],
            [
                $full->amps > $plan->esc->amps,
                PlanCode::EscOverAmps,
                ['amps' => $full->amps, 'most_a' => $plan->esc->amps, 'name' => $plan->esc->name],
            ],
            ...array_map(
                static fn (string $name): array => [true, PlanCode::NoPort, ['name' => $name, 'board' => $plan->board->name]],
                $soldering->left,
            ),
            [!$soldering->has(PartRole::Receiver), PlanCode::NoReceiver, []],
            [$all > $plan->pack->mostA, PlanCode::PackOverAmps, ['amps' => $all, 'most_a' => $plan->pack->mostA]],
            [$lifts >= self::LIFTS_LEAST && $lifts < self::LIFTS_WELL, PlanCode::Heavy, ['lifts' => $lifts]],
            [0 === $plan->board->recorderMb, PlanCode::NoRecorder, ['board' => $plan->board->name]],
        ];
        $facts = [];
        foreach ($said as [$is, $code, $figures]) {
            if ($is) {
                $facts[] = Fact::of($code, ...$figures);
            }
        }

        return $facts;
    }
}
