<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** What a builder can move, press, declare or break on the bench. */
enum Thing: string
{
    case Cable = 'cable';
    case Pack = 'pack';
    case Props = 'props';

    /** Share of its charge that is used. */
    case PackUsed = 'pack_used';

    /** Its resistance over that of a new one. */
    case PackWorn = 'pack_worn';
    case Transmitter = 'transmitter';

    /** A control of the transmitter, or the receiver's button, with its name after a colon. */
    case Radio = 'radio';

    case Outdoors = 'outdoors';
    case PropsDeclaredOff = 'props_declared_off';
    case BootloaderButton = 'bootloader_button';
    case SwapMotors = 'swap_motors';
    case SwapEscs = 'swap_escs';
    case Tilt = 'tilt';

    /** Which way its nose points, deg from true north. */
    case Heading = 'heading';

    /** Turned in the hand, slowly through all poses. */
    case Tumble = 'tumble';
    case Mishap = 'mishap';
    case Fault = 'fault';
}
