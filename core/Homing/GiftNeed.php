<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

/** What is missing for something that position gives. */
enum GiftNeed: string
{
    case Position = 'position';
    case Compass = 'compass';
    case Calibration = 'calibration';
    case Barometer = 'barometer';
    case Lever = 'lever';
    case LossPlan = 'loss_plan';
    case Rehearsal = 'rehearsal';
}
