<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

/** A flight worth logging, by what its log can tell. */
enum Card: string
{
    /** Large random moves of roll and pitch together: step response. */
    case MixedSticks = 'mixed_sticks';

    /** Every throttle level: noise. */
    case HoverAndClimb = 'hover_and_climb';

    /** One flip after another: prop wash and saturation. */
    case FlipSet = 'flip_set';

    /** Slow, smooth moves. */
    case Cruise = 'cruise';

    /** The first flight: lift, hover, small moves to all sides, land. */
    case Maiden = 'maiden';

    /** The radio is switched off at a height and a distance. */
    case LinkLost = 'link_lost';

    /** Lines over the marsh at one speed: what position tells, and how it leans at cruise. */
    case Survey = 'survey';

    /** @return list<self> flown in a box above the ground, for what their logs tell */
    public static function gathering(): array
    {
        return [self::MixedSticks, self::HoverAndClimb, self::FlipSet, self::Cruise];
    }

    /** How long it is flown at most, s. */
    public function seconds(): int
    {
        return match (true) {
            \in_array($this, self::gathering(), true) => 40,
            self::Survey === $this => 75,
            default => 60,
        };
    }
}
