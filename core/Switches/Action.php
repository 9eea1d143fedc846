<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

use Ortholex\Core\Craft\RecorderTarget;
use Ortholex\Core\Craft\SettingSet;

/** What a switch turns on. */
enum Action: string
{
    case Arm = 'arm';
    case Angle = 'angle';
    case Horizon = 'horizon';
    case AirMode = 'air_mode';
    case Beeper = 'beeper';
    case HeadingSteering = 'take_off_heading_steering';
    case PositionHold = 'position_hold';
    case AltitudeHold = 'altitude_hold';
    case Return = 'return';
    case TestFeel = 'test_feel';
    case GainSetB = 'gain_set_b';
    case CameraLevel = 'camera_level';
    case Record = 'record';
    case VideoLow = 'video_at_lowest_power';
    case SelfRight = 'self_right';
    case OverlaySwitch = 'overlay_switch';

    public function setting(): string
    {
        return "action.$this->value.on_in";
    }

    /** Its bit in what a board tells to be on. */
    public function bit(): int
    {
        return 1 << (int) array_search($this, self::cases(), true);
    }

    /** @return list<self> whose bits are set */
    public static function ofBits(int $bits): array
    {
        return array_values(array_filter(self::cases(), static fn (self $a): bool => 0 !== ($bits & $a->bit())));
    }

    /** @return list<self> of which at most one can hold: the first that is on does */
    public static function attitudes(): array
    {
        return [self::Return, self::PositionHold, self::Angle, self::Horizon];
    }

    public function levels(): bool
    {
        return \in_array($this, self::attitudes(), true);
    }

    /**
     * What it cannot work without and does not find; null when all is there.
     *
     * @param list<string> $sensors of the board
     */
    public function missing(SettingSet $set, array $sensors): ?Need
    {
        $digital = str_starts_with($set->text('motors.protocol', 'dshot300'), 'dshot');

        return match ($this) {
            self::PositionHold, self::Return => match (true) {
                !$set->flag('location.enabled') => Need::Position,
                !\in_array('compass', $sensors, true) => Need::Compass,
                default => null,
            },
            self::AltitudeHold => \in_array('barometer', $sensors, true) ? null : Need::Barometer,
            self::Angle, self::Horizon, self::HeadingSteering => [] === $sensors || \in_array('accelerometer', $sensors, true)
                ? null
                : Need::Accelerometer,
            self::Beeper, self::SelfRight => $digital ? null : Need::DigitalSignal,
            self::CameraLevel => \in_array('camera_tilt', $set->drives(), true) ? null : Need::CameraServo,
            self::Record => RecorderTarget::Nothing->value === $set->text('recorder.writes_to') ? Need::Recorder : null,
            self::OverlaySwitch => $set->flag('overlay.enabled') ? null : Need::Overlay,
            self::VideoLow => $set->flag('video.enabled') ? null : Need::Video,
            default => null,
        };
    }
}
