<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Radio\Protocol\Protocol;

/** The source that an item cannot be shown without. */
enum OverlayNeed: string
{
    case CurrentSensor = 'current_sensor';
    case Barometer = 'barometer';
    case Position = 'position';
    case Compass = 'compass';
    case CameraServo = 'camera_servo';
    case Video = 'video';
    case LinkFigures = 'link_figures';

    /** @param list<string> $sensors of the board; none known: what it senses is not held against it */
    public function isMet(SettingSet $set, array $sensors): bool
    {
        $has = static fn (string $sensor): bool => [] === $sensors || \in_array($sensor, $sensors, true);

        return match ($this) {
            self::CurrentSensor => $has('current'),
            self::Barometer => $has('barometer'),
            self::Position => $set->flag('location.enabled'),
            self::Compass => $set->flag('location.enabled') && $has('compass'),
            self::CameraServo => \in_array('camera_tilt', $set->drives(), true),
            self::Video => $set->flag('video.enabled'),
            // One that only sends channels tells nothing of its link.
            self::LinkFigures => Protocol::Crsf->value === $set->text('receiver.protocol'),
        };
    }
}
