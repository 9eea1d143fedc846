<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Esc\EndPoint;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;
use Ortholex\Core\Settings\EscTable;

/** An analogue signal means to each ESC what its end points make of it: idle must turn its motor, and full be full. */
final readonly class EndPointsMeetOutputs implements Rule
{
    /** Apart by more, one motor turns visibly before another: a third of a percent of output. */
    private const ALIKE_US = 3.0;

    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        if (MotorSignal::in($set)->isDigital()) {
            return;
        }
        $lows = self::ends($set, EndPoint::Low);
        $highs = self::ends($set, EndPoint::High);
        $idle = MotorSignal::pulseUs($set->number('motors.idle_pct'));
        $full = MotorSignal::pulseUs($set->number('motors.top_pct', 100.0));
        $deaf = array_filter($lows, static fn (float $us): bool => $us >= $idle);
        if ([] !== $deaf) {
            $name = (string) array_key_first($deaf);
            yield Clash::warn($name, ClashCode::IdleBelowEndPoint, escs: \count($deaf), us: max($deaf), idle_us: $idle);
        }
        $short = array_filter($highs, static fn (float $us): bool => $us > $full);
        if ([] !== $short) {
            $name = (string) array_key_first($short);
            yield Clash::warn($name, ClashCode::FullAboveOutputs, escs: \count($short), us: max($short), full_us: $full);
        }
        foreach ([$lows, $highs] as $ends) {
            if (\count($ends) > 1 && max($ends) - min($ends) > self::ALIKE_US) {
                $name = (string) array_key_first($ends);
                yield Clash::warn($name, ClashCode::EndPointsApart, least_us: min($ends), most_us: max($ends));
            }
        }
    }

    /** @return array<string, float> µs by name, of each ESC that told */
    private static function ends(SettingSet $set, EndPoint $end): array
    {
        $ends = [];
        foreach (EscTable::pads($set) as $place) {
            if ($set->has("esc.$place.$end->value")) {
                $ends["esc.$place.$end->value"] = $set->number("esc.$place.$end->value");
            }
        }

        return $ends;
    }
}
