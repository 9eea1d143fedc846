<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** The discs of neighbouring props do not meet; on some frames they are staggered, so it is a remark. */
final readonly class PropsClear implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        $disc = $set->number('props.diameter_mm', 0.0);
        try {
            $motors = Airframe::of($set)->motors;
        } catch (AirframeError) {
            return;
        }
        $nearest = \INF;
        $pair = [];
        foreach ($motors as $i => $a) {
            foreach (\array_slice($motors, $i + 1) as $b) {
                $apart = 1000 * hypot($a->x - $b->x, $a->y - $b->y);
                if ($apart < $nearest) {
                    [$nearest, $pair] = [$apart, [$a->place, $b->place]];
                }
            }
        }
        if ($nearest < $disc) {
            yield Clash::warn('props.diameter_mm', ClashCode::PropsOverlap, places: $pair, apart: round($nearest), disc: $disc);
        }
    }
}
