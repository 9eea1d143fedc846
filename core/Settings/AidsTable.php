<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Compass\Calibration;
use Ortholex\Core\Homing\IfNear;
use Ortholex\Core\Overlay\OverlayItem;
use Ortholex\Core\Overlay\Raster;
use Ortholex\Core\Overlay\Source\VoltageFrom;

/** The settings of what helps a pilot besides flying: position, overlay, camera and video. */
final readonly class AidsTable
{
    private const GROUP = SettingGroup::Aids;

    /** @return list<Setting> */
    public static function location(): array
    {
        $rows = [
            Setting::number('location.most_hdop', self::GROUP, '', 2.0, 1, 10, 0.1),
            Setting::flag('compass.enabled', self::GROUP, false, restart: true),
        ];
        foreach (['x', 'y', 'z'] as $axis) {
            $rows[] = Setting::number("compass.offset.{$axis}_ut", self::GROUP, 'µT', 0.0, -1000, 1000, 0.1);
        }
        foreach (Calibration::SOFT as $name => [$row, $column]) {
            $rows[] = Setting::number("compass.soft.$name", self::GROUP, '', $row === $column ? 1.0 : 0.0, -4, 4, 0.0001);
        }
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $rows[] = Setting::number("compass.{$axis}_deg", self::GROUP, 'deg', 0.0, -180, 180, 90);
        }

        return [
            ...$rows,
            Setting::number('compass.declination_deg', self::GROUP, 'deg', 0.0, -180, 180, 0.1),
            Setting::number('hold.dead_band_pct', self::GROUP, '% of stick', 8.0, 0, 40, 1),
            Setting::number('hold.most_tilt_deg', self::GROUP, 'deg', 25.0, 5, 45, 1),
            Setting::number('altitude_hold.neutral_pct', self::GROUP, '% of travel', 10.0, 2, 30, 1),
            Setting::number('return.height_m', self::GROUP, 'm', 30.0, 5, 120, 1),
            Setting::number('return.speed_ms', self::GROUP, 'm/s', 6.0, 1, 20, 0.5),
            Setting::number('return.climb_ms', self::GROUP, 'm/s', 2.0, 0.5, 5, 0.1),
            Setting::number('return.sink_ms', self::GROUP, 'm/s', 1.0, 0.3, 3, 0.1),
            Setting::number('return.least_m', self::GROUP, 'm', 15.0, 0, 100, 1),
            Setting::number('return.most_m', self::GROUP, 'm', 0.0, 0, 5000, 10),
            Setting::choice('return.if_near', self::GROUP, IfNear::LandHere->value, array_column(IfNear::cases(), 'value')),
            Setting::number('return.tilted_45_ms', self::GROUP, 'm/s', 17.0, 4, 60, 0.5),
        ];
    }

    /** @return list<Setting> */
    public static function overlay(): array
    {
        $rows = [
            Setting::choice('overlay.raster', self::GROUP, Raster::Lines625->value, array_column(Raster::cases(), 'value')),
            Setting::choice('overlay.voltage_from', self::GROUP, VoltageFrom::Pack->value, array_column(VoltageFrom::cases(), 'value')),
            Setting::times('overlay.layouts', self::GROUP, '1:always'),
        ];
        foreach (OverlayItem::cases() as $item) {
            $rows[] = Setting::cells($item->setting(), self::GROUP);
        }

        return $rows;
    }

    /** @return list<Setting> */
    public static function camera(): array
    {
        return [
            Setting::number('camera.low_us', self::GROUP, 'µs', 1100.0, 700, 2300, 1),
            Setting::number('camera.middle_us', self::GROUP, 'µs', 1500.0, 700, 2300, 1),
            Setting::number('camera.high_us', self::GROUP, 'µs', 1900.0, 700, 2300, 1),
            Setting::number('camera.us_per_deg', self::GROUP, 'µs/deg', 10.0, 2, 40, 0.1),
            Setting::flag('camera.reversed', self::GROUP, false),
            Setting::number('camera.rest_deg', self::GROUP, 'deg', 0.0, -90, 90, 1),
            Setting::number('camera.pulse_hz', self::GROUP, 'Hz', 50.0, 50, 330, 1, restart: true),
            Setting::flag('camera.follows_pitch', self::GROUP, false),
            Setting::whole('camera.knob_channel', self::GROUP, 0, 0, 16),
            Setting::number('video.mhz', self::GROUP, 'MHz', 5788.0, 1000, 6000, 1),
            Setting::number('video.power_mw', self::GROUP, 'mW', 1.0, 1, 2000, 1),
            Setting::flag('video.low_until_armed', self::GROUP, true),
        ];
    }
}
