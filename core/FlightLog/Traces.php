<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Craft\Axis;

/** The canonical trace names (docs/log-format.md) and what a name says of unit and kind. */
final readonly class Traces
{
    /** Name of the column that holds the time, s. */
    public const TIME = 'time_s';

    public const TERMS = ['p', 'i', 'd', 'ff'];
    private const PATTERNS = [
        '~^throttle_pct$~' => '%',
        '~^stick_(roll|pitch|yaw|throttle)_us$~' => 'µs',
        '~^setpoint_(roll|pitch|yaw)_dps$~' => 'deg/s',
        '~^rate_(measured|filtered)_(roll|pitch|yaw)_dps$~' => 'deg/s',
        '~^term_(p|i|d|ff)_(roll|pitch|yaw)$~' => '%',
        '~^output_[a-z0-9_]+_pct$~' => '%',
        '~^rpm_[a-z0-9_]+$~' => 'rpm',
        '~^tracking_notch_\d+_hz$~' => 'Hz',
        '~^accel_[xyz]_g$~' => 'g',
        '~^battery_v$~' => 'V',
        '~^current_a$~' => 'A',
        '~^position_(north|east|height)_m$~' => 'm',
        '~^ground_speed_ms$~' => 'm/s',
        '~^attitude_(roll|pitch|heading)_deg$~' => 'deg',
        '~^satellites$~' => '',
    ];

    public static function setpoint(Axis $axis): string
    {
        return "setpoint_{$axis->value}_dps";
    }

    public static function measuredRate(Axis $axis): string
    {
        return "rate_measured_{$axis->value}_dps";
    }

    public static function filteredRate(Axis $axis): string
    {
        return "rate_filtered_{$axis->value}_dps";
    }

    /** @param string $term one of TERMS */
    public static function term(string $term, Axis $axis): string
    {
        return "term_{$term}_{$axis->value}";
    }

    /**
     * The rate that stands nearest the rotation itself: the measured one, as the filtered comes later by the filters' delay.
     *
     * @param list<string> $logged names of traces
     *
     * @return string|null null where neither was logged
     */
    public static function rateOfRotation(array $logged, Axis $axis): ?string
    {
        return self::firstOf([self::measuredRate($axis), self::filteredRate($axis)], $logged);
    }

    /**
     * The rate that the controller saw: the filtered one, or the measured where that alone was logged.
     *
     * @param list<string> $logged names of traces
     */
    public static function rateOfControl(array $logged, Axis $axis): ?string
    {
        return self::firstOf([self::filteredRate($axis), self::measuredRate($axis)], $logged);
    }

    /**
     * The same of all axes; each by what was logged of it, whatever was logged of the others.
     *
     * @param list<string> $logged names of traces
     *
     * @return array<string, string> by axis; an axis without any is left out
     */
    public static function ratesOfControl(array $logged): array
    {
        $rates = [];
        foreach (Axis::cases() as $axis) {
            $rates[$axis->value] = self::rateOfControl($logged, $axis);
        }

        return array_filter($rates, \is_string(...));
    }

    /** Unit of a canonical trace, or null when the name is none of ours. */
    public static function unitOf(string $name): ?string
    {
        foreach (self::PATTERNS as $pattern => $unit) {
            if (1 === preg_match($pattern, $name)) {
                return $unit;
            }
        }

        return null;
    }

    /**
     * Traces to choose from: those of every log, and those already in use.
     *
     * @param list<string> $used
     *
     * @return list<string>
     */
    public static function common(array $used): array
    {
        $all = ['throttle_pct'];
        foreach (
            [
                'setpoint_%s_dps',
                'rate_measured_%s_dps',
                'rate_filtered_%s_dps',
                'term_p_%s',
                'term_i_%s',
                'term_d_%s',
                'term_ff_%s',
                'stick_%s_us',
            ] as $pattern
        ) {
            foreach (Axis::cases() as $axis) {
                $all[] = \sprintf($pattern, $axis->value);
            }
        }
        for ($motor = 1; $motor <= 8; ++$motor) {
            $all[] = "output_{$motor}_pct";
            $all[] = "rpm_$motor";
        }

        return array_values(
            array_unique(
                array_filter(
                    [...$used, ...$all, 'stick_throttle_us', 'accel_x_g', 'accel_y_g', 'accel_z_g', 'battery_v', 'current_a'],
                    static fn (string $t): bool => self::TIME !== $t,
                ),
            ),
        );
    }

    /** In words: "filtered rate, roll". */
    public static function inWords(string $name): string
    {
        $words = (string) preg_replace('~_(pct|us|dps|hz|g|v|a|m|ms|deg)$~', '', $name);
        if (1 === preg_match('~^rate_(measured|filtered)_(\w+)$~', $words, $m)) {
            return "$m[1] rate, $m[2]";
        }
        if (1 === preg_match('~^term_(\w+?)_(\w+)$~', $words, $m)) {
            return (['ff' => 'feed-forward'][$m[1]] ?? strtoupper($m[1])).", $m[2]";
        }
        if (1 === preg_match('~^(output|rpm|setpoint|stick)_(\w+)$~', $words, $m)) {
            return "$m[1], ".str_replace('_', ' ', $m[2]);
        }

        return str_replace('_', ' ', $words);
    }

    /**
     * @param list<string> $wanted
     * @param list<string> $logged
     */
    private static function firstOf(array $wanted, array $logged): ?string
    {
        foreach ($wanted as $name) {
            if (\in_array($name, $logged, true)) {
                return $name;
            }
        }

        return null;
    }
}
