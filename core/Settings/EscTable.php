<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Esc\EscIdentity;

/**
 * The settings of an ESC, once for all places: `esc.PLACE.KEY`. They live in the ESC, not in the board, so no
 * version of Loam changes them; what an ESC cannot honour, its hardware or its firmware says.
 */
final readonly class EscTable
{
    public const GROUPS = [
        'direction' => 'Direction',
        'commutation' => 'Commutation',
        'braking' => 'Braking',
        'limits' => 'Limits',
        'sounds' => 'Sounds',
    ];
    public const PLACES = ['front_right', 'rear_right', 'rear_left', 'front_left', 'right', 'left', 'front', 'rear'];

    /** What the older family knows; all else came with Withy. */
    private const BRACKEN_KNOWS = ['direction', 'advance_deg', 'brake_on_slow_down', 'starting_current_pct', 'tone_loudness_pct'];

    /** @return array<string, Setting> by key */
    public static function rows(): array
    {
        $rows = [];
        foreach (
            [
                self::choice(
                    'direction',
                    'Direction',
                    'direction',
                    'normal',
                    ['normal', 'reversed'],
                    'Which way the motor turns. Reversed here, no wire is soldered again; the other ESCs stay as they are.',
                ),
                self::number(
                    'advance_deg',
                    'Commutation advance',
                    'commutation',
                    'deg',
                    16,
                    0,
                    30,
                    1,
                    'How far ahead of the rotor the windings are switched. More gives some top speed; too much costs power, heat and sync.',
                ),
                self::choice(
                    'sync_loss_response',
                    'Sync-loss response',
                    'commutation',
                    'gentle',
                    ['off', 'gentle', 'strong'],
                    'What it does when the rotor\'s position is nearly lost: less power for a moment. Strong guards best and costs punch.',
                ),
                self::flag(
                    'brake_on_slow_down',
                    'Brake on slow-down',
                    'braking',
                    true,
                    'Brakes the prop when less is asked for. Quicker answers, sharper handling, some heat and noise.',
                ),
                self::number(
                    'brake_at_standstill_pct',
                    'Brake at standstill',
                    'braking',
                    '%',
                    0,
                    0,
                    100,
                    5,
                    'Holds a stopped prop. Another thing than braking on slow-down; zero lets it turn freely.',
                ),
                self::number(
                    'starting_current_pct',
                    'Starting current',
                    'limits',
                    '%',
                    40,
                    5,
                    100,
                    5,
                    'Power allowed while the rotor starts. Too low and heavy props stall; too high and a blocked one burns.',
                ),
                self::number(
                    'low_speed_current_pct',
                    'Low-speed current',
                    'limits',
                    '%',
                    60,
                    0,
                    100,
                    5,
                    'Current allowed at low speed, against burning when blocked; zero sets no limit.',
                ),
                self::number(
                    'temperature_limit_c',
                    'Temperature limit',
                    'limits',
                    '°C',
                    110,
                    0,
                    140,
                    5,
                    'Power is cut back above this; zero sets no limit. Only where the hardware measures.',
                ),
                self::number(
                    'tone_loudness_pct',
                    'Tone loudness',
                    'sounds',
                    '%',
                    40,
                    0,
                    100,
                    5,
                    'Tones at power-on and in ESC calibration. Loud tones warm the motors.',
                ),
                self::number(
                    'chirp_loudness_pct',
                    'Lost-craft chirp',
                    'sounds',
                    '%',
                    60,
                    0,
                    100,
                    5,
                    'How loudly a lost craft chirps through its motors; zero keeps it silent.',
                ),
                self::number(
                    'chirp_wait_min',
                    'Lost-craft wait',
                    'sounds',
                    'min',
                    10,
                    1,
                    30,
                    1,
                    'How long without a signal until it chirps. Long waits heat nothing on the bench.',
                ),
            ] as $row
        ) {
            $rows[$row->name] = $row;
        }

        return $rows;
    }

    /** The setting behind a full name, or null when it is none of an ESC. */
    public static function named(string $name): ?Setting
    {
        if (
            1 !== preg_match('~^esc\.([a-z_]+)\.([a-z_]+)$~', $name, $m)
            || !\in_array($m[1], self::PLACES, true)
            || null === ($row = self::rows()[$m[2]] ?? null)
        ) {
            return null;
        }

        return new Setting(
            $name,
            $row->type,
            ucfirst(str_replace('_', ' ', $m[1])).' ESC, '.lcfirst($row->label),
            'esc',
            $row->unit,
            $row->default,
            $row->ranges,
            $row->step,
            $row->choices,
            $row->since,
            null,
            false,
            $row->help,
        );
    }

    public static function owns(string $name): bool
    {
        return str_starts_with($name, 'esc.');
    }

    /**
     * @param array<string, float|int|bool|string> $settings
     *
     * @return array<string, float|int|bool|string> those of the board
     */
    public static function without(array $settings): array
    {
        return array_filter($settings, static fn (string $name): bool => !self::owns($name), \ARRAY_FILTER_USE_KEY);
    }

    /** @return array{string, string} place and key of a full name */
    public static function parts(string $name): array
    {
        $parts = explode('.', $name, 3);

        return [$parts[1] ?? '', $parts[2] ?? ''];
    }

    /** Why this ESC cannot honour a setting; null when it can. */
    public static function unable(string $key, EscIdentity $esc): ?string
    {
        if ('temperature_limit_c' === $key && !$esc->measuresHeat) {
            return 'its hardware measures no temperature';
        }
        if ('Bracken' === $esc->family && !\in_array($key, self::BRACKEN_KNOWS, true)) {
            return $esc->firmwareInWords().' does not know it; convert it to Withy on sheet 12';
        }

        return $esc->inBootloader() ? 'only its bootloader runs' : null;
    }

    /**
     * What an ESC holds after its firmware found nothing kept.
     *
     * @return array<string, float|int|bool|string>
     */
    public static function defaults(EscIdentity $esc): array
    {
        return array_map(
            static fn (Setting $s): float|int|bool|string => $s->default,
            array_filter(self::rows(), static fn (Setting $s): bool => null === self::unable($s->name, $esc)),
        );
    }

    /**
     * The same ESCs under another pad map: each `esc.PLACE.*` becomes what the ESC on the pad of that place holds.
     *
     * @param array<string, float|int|bool|string> $settings as read, under the pad map they hold
     * @param array<string, float|int|bool|string> $pads     settings whose `pad.N.drives` are to be
     *
     * @return array<string, float|int|bool|string>
     */
    public static function underPadMap(array $settings, array $pads): array
    {
        $out = $settings;
        $moved = [];
        for ($pad = 1; $pad <= 8; ++$pad) {
            $was = $settings["pad.$pad.drives"] ?? 'none';
            $is = $pads["pad.$pad.drives"] ?? $was;
            if ($was !== $is) {
                $moved[(string) $was] = (string) $is;
            }
        }
        if ([] === $moved) {
            return $out;
        }
        foreach (array_keys(self::rows()) as $key) {
            foreach ($moved as $was => $is) {
                unset($out["esc.$is.$key"]);
            }
            foreach ($moved as $was => $is) {
                if (isset($settings["esc.$was.$key"]) && \in_array($is, self::PLACES, true)) {
                    $out["esc.$is.$key"] = $settings["esc.$was.$key"];
                }
            }
        }

        return $out;
    }

    private static function number(
        string $key,
        string $label,
        string $group,
        string $unit,
        float $default,
        float $low,
        float $high,
        float $step,
        string $help,
    ): Setting {
        return new Setting(
            $key,
            Setting::NUMBER,
            $label,
            $group,
            $unit,
            $default,
            ['4.0' => [$low, $high]],
            $step,
            [],
            '4.0',
            null,
            false,
            $help,
        );
    }

    private static function flag(string $key, string $label, string $group, bool $default, string $help): Setting
    {
        return new Setting($key, Setting::SWITCH, $label, $group, '', $default, [], 1, [], '4.0', null, false, $help);
    }

    /** @param list<string> $choices */
    private static function choice(string $key, string $label, string $group, string $default, array $choices, string $help): Setting
    {
        return new Setting($key, Setting::CHOICE, $label, $group, '', $default, [], 1, $choices, '4.0', null, false, $help);
    }
}
