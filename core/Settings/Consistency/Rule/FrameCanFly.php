<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** The frame has every command, an output for every motor once it has one for any, and a motor wherever an output drives one. */
final readonly class FrameCanFly implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        try {
            $frame = Airframe::of($set);
            $left = array_values(array_diff($frame->places(), $set->drives()));
            if ([] !== $left && \count($left) < \count($frame->motors)) {
                yield Clash::warn('frame.layout', ClashCode::MotorsNotDriven, places: $left);
            }
            Mixer::of($frame);
            $by = [];
            foreach ($set->drives() as $pad => $place) {
                if (isset($by[$place]) && null !== Place::tryFrom($place)) {
                    yield Clash::refuse("pad.$pad.drives", ClashCode::MotorDrivenTwice, pad: $pad, other: $by[$place], place: $place);
                }
                $by[$place] = $pad;
                if (null !== Place::tryFrom($place) && null === $frame->at($place)) {
                    yield Clash::refuse("pad.$pad.drives", ClashCode::PlaceWithoutMotor, pad: $pad, place: $place);
                }
            }
        } catch (AirframeError $e) {
            yield Clash::because('frame.layout', $e->flaw);
        }
    }
}
