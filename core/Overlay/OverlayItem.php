<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

/** What can stand on the picture: how many cells it takes, and what it cannot be shown without. */
enum OverlayItem: string
{
    case PackVoltage = 'pack_voltage';
    case CellVoltage = 'cell_voltage';
    case Current = 'current';
    case ChargeUsed = 'charge_used';
    case MinutesLeft = 'minutes_left';
    case FlightTime = 'flight_time';
    case LinkQuality = 'link_quality';
    case SignalStrength = 'signal_strength';
    case Throttle = 'throttle';
    case Height = 'height';
    case ClimbRate = 'climb_rate';
    case GroundSpeed = 'ground_speed';
    case HomeDistance = 'home_distance';
    case HomeDirection = 'home_direction';
    case Latitude = 'latitude';
    case Longitude = 'longitude';
    case Satellites = 'satellites';
    case Heading = 'heading';
    case Horizon = 'horizon';
    case CameraTilt = 'camera_tilt';
    case VideoFrequency = 'video_frequency';
    case CraftName = 'craft_name';
    case Modes = 'modes';
    case Warnings = 'warnings';

    /** @return array{int, int} columns and rows */
    public function size(): array
    {
        return match ($this) {
            self::HomeDirection => [2, 1],
            self::Satellites => [4, 1],
            self::LinkQuality, self::Throttle, self::CameraTilt, self::Heading => [5, 1],
            self::PackVoltage, self::CellVoltage, self::Current, self::FlightTime, self::Height, self::HomeDistance => [6, 1],
            self::ChargeUsed, self::ClimbRate, self::GroundSpeed, self::VideoFrequency, self::SignalStrength, self::MinutesLeft => [7, 1],
            self::Modes, self::CraftName => [10, 1],
            self::Latitude, self::Longitude => [12, 1],
            self::Warnings => [14, 1],
            self::Horizon => [9, 5],
        };
    }

    /** Its number in the chip's memory. */
    public function code(): int
    {
        return (int) array_search($this, self::cases(), true);
    }

    public static function ofCode(int $code): ?self
    {
        return self::cases()[$code] ?? null;
    }

    public function setting(): string
    {
        return "overlay.item.$this->value";
    }

    public function needs(): ?OverlayNeed
    {
        return match ($this) {
            self::Current, self::ChargeUsed, self::MinutesLeft => OverlayNeed::CurrentSensor,
            self::Height, self::ClimbRate => OverlayNeed::Barometer,
            self::GroundSpeed, self::HomeDistance, self::Latitude, self::Longitude, self::Satellites => OverlayNeed::Position,
            self::HomeDirection, self::Heading => OverlayNeed::Compass,
            self::CameraTilt => OverlayNeed::CameraServo,
            self::VideoFrequency => OverlayNeed::Video,
            self::LinkQuality, self::SignalStrength => OverlayNeed::LinkFigures,
            default => null,
        };
    }
}
