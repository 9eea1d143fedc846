<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

/** What a hand does to the transmitter, or to the receiver's button. */
enum Hand: string
{
    case Sticks = 'sticks';
    case LetGo = 'let_go';
    case Lever = 'lever';
    case Knob = 'knob';
    case Model = 'model';
    case Bind = 'bind';
    case Button = 'button';
    case Manner = 'manner';

    /** What a receiver that sends presets puts on the throttle's channel. */
    case Preset = 'preset';

    /** Carried so far away from the craft, m. */
    case Distance = 'distance';

    /** Sending at a tenth of its power. */
    case Quiet = 'quiet';
    case Dial = 'dial';
}
