<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

/** What an action cannot work without. */
enum Need: string
{
    case Position = 'position';
    case Compass = 'compass';
    case Barometer = 'barometer';
    case Accelerometer = 'accelerometer';
    case DigitalSignal = 'digital_signal';
    case CameraServo = 'camera_servo';
    case Recorder = 'recorder';
    case Video = 'video';
    case Overlay = 'overlay';
}
