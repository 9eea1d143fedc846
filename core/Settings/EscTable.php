<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EndPoint;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Esc\TurningDirection;
use Ortholex\Core\Fact\Fact;

/**
 * The settings of an ESC, once for all places: `esc.PLACE.KEY`. They live in the ESC, not in the board, so no
 * version of Loam changes them; what an ESC cannot honour, its hardware or its firmware says.
 */
final readonly class EscTable
{
    /** Needs a sensor that not all have. */
    private const HEAT = 'temperature_limit_c';

    private const OLDER_FAMILY = 'Bracken';

    /** What the older family knows; all else came with Withy. */
    private const OLDER_KNOWS = [
        'direction', 'advance_deg', 'brake_on_slow_down', 'starting_current_pct', 'tone_loudness_pct',
        EndPoint::Low->value, EndPoint::High->value,
    ];

    /** @return array<string, Setting> by key */
    public static function rows(): array
    {
        $rows = [];
        foreach (
            [
                Setting::choice(
                    'direction',
                    SettingGroup::Direction,
                    TurningDirection::AsWired->value,
                    array_column(TurningDirection::cases(), 'value'),
                ),
                Setting::number('advance_deg', SettingGroup::Commutation, 'deg', 13, 0, 30, 1),
                Setting::number('sync_loss_power_cut_pct', SettingGroup::Commutation, '%', 25, 0, 80, 5),
                Setting::flag('brake_on_slow_down', SettingGroup::Braking, true),
                Setting::number('brake_at_standstill_pct', SettingGroup::Braking, '%', 0, 0, 100, 5),
                Setting::number('starting_current_pct', SettingGroup::Limits, '%', 40, 5, 100, 5),
                Setting::number('low_speed_current_pct', SettingGroup::Limits, '%', 60, 0, 100, 5),
                Setting::number(self::HEAT, SettingGroup::Limits, '°C', 110, 0, 140, 5),
                Setting::number(EndPoint::Low->value, SettingGroup::EndPoints, 'µs', EndPoint::Low->untaughtUs(), 900, 1300, 1),
                Setting::number(EndPoint::High->value, SettingGroup::EndPoints, 'µs', EndPoint::High->untaughtUs(), 1700, 2200, 1),
                Setting::number('tone_loudness_pct', SettingGroup::Sounds, '%', 25, 0, 100, 5),
                Setting::number('chirp_loudness_pct', SettingGroup::Sounds, '%', 60, 0, 100, 5),
                Setting::number('chirp_wait_min', SettingGroup::Sounds, 'min', 4, 1, 30, 1),
            ] as $row
        ) {
            $rows[$row->name] = $row;
        }

        return $rows;
    }

    /** The setting behind a full name, or null when it is none of an ESC. */
    public static function named(string $name): ?Setting
    {
        if (1 !== preg_match('~^esc\.([a-z_]+)\.([a-z_]+)$~', $name, $m) || !\in_array($m[1], Place::names(), true)) {
            return null;
        }

        return (self::rows()[$m[2]] ?? null)?->named($name);
    }

    /** @param array<string, float|int|bool|string> $held by key */
    public static function isSwapped(array $held): bool
    {
        return TurningDirection::Swapped->value === ($held['direction'] ?? '');
    }

    public static function owns(string $name): bool
    {
        return str_starts_with($name, 'esc.');
    }

    /** Those of the board alone. */
    public static function without(SettingSet $settings): SettingSet
    {
        return $settings->where(static fn (string $name): bool => !self::owns($name));
    }

    /** Those of ESCs alone. */
    public static function only(SettingSet $settings): SettingSet
    {
        return $settings->where(self::owns(...));
    }

    /** What is held of the ESC at a place, by key. */
    public static function at(string $place, SettingSet $settings): SettingSet
    {
        $held = [];
        foreach (self::only($settings) as $name => $value) {
            [$of, $key] = self::parts($name);
            if ($of === $place) {
                $held[$key] = $value;
            }
        }

        return SettingSet::of($held);
    }

    /**
     * The same under full names.
     *
     * @param SettingSet $values by key
     */
    public static function prefixed(string $place, SettingSet $values): SettingSet
    {
        $full = [];
        foreach ($values as $key => $value) {
            $full["esc.$place.$key"] = $value;
        }

        return SettingSet::of($full);
    }

    /** @return array<int, string> by output pad: the motor that it drives */
    public static function pads(SettingSet $settings): array
    {
        return array_intersect($settings->drives(), Place::names());
    }

    /** @return array{string, string} place and key of a full name */
    public static function parts(string $name): array
    {
        $parts = explode('.', $name, 3);

        return [$parts[1] ?? '', $parts[2] ?? ''];
    }

    /** Why this ESC cannot honour a setting, of Inability; null when it can. */
    public static function unable(string $key, EscIdentity $esc): ?Fact
    {
        return match (true) {
            self::HEAT === $key && !$esc->measuresHeat => Fact::of(Inability::MeasuresNoHeat),
            self::OLDER_FAMILY === $esc->family && !\in_array($key, self::OLDER_KNOWS, true) => Fact::of(
                Inability::FirmwareDoesNotKnow,
                family: $esc->family,
                version: $esc->version?->toString(),
            ),
            $esc->inBootloader() => Fact::of(Inability::OnlyBootloaderRuns),
            default => null,
        };
    }

    /** What an ESC holds after its firmware found nothing kept, by key. */
    public static function defaults(EscIdentity $esc): SettingSet
    {
        return SettingSet::of(
            array_map(
                static fn (Setting $s): float|int|bool|string => $s->default,
                array_filter(self::rows(), static fn (Setting $s): bool => null === self::unable($s->name, $esc)),
            ),
        );
    }

    /**
     * The same ESCs under another pad map: each `esc.PLACE.*` becomes what the ESC on the pad of that place holds.
     *
     * @param SettingSet $settings as read, under the pad map they hold
     * @param SettingSet $pads     settings whose `pad.N.drives` are to be
     */
    public static function underPadMap(SettingSet $settings, SettingSet $pads): SettingSet
    {
        $moved = [];
        for ($pad = 1; $pad <= SettingSet::PADS; ++$pad) {
            $was = $settings->text("pad.$pad.drives", 'none');
            $is = $pads->text("pad.$pad.drives", $was);
            if ($was !== $is) {
                $moved[$was] = $is;
            }
        }
        $out = $settings->where(static fn (string $name): bool => !self::owns($name) || !\in_array(self::parts($name)[0], $moved, true));
        foreach ($moved as $was => $is) {
            if (null !== Place::tryFrom($is)) {
                $out = $out->with(self::prefixed($is, self::at($was, $settings)));
            }
        }

        return $out;
    }
}
