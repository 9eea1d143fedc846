<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Migration;

/**
 * Settings written down before they got the names and measures of now: carried over one for one, so that books, boards, logs and
 * files of those days are read as the same settings.
 */
final readonly class FormerNames
{
    private const RENAMED = [
        'notch.tracking.count' => 'notch.tracking.peaks',
        'gain.attenuation' => 'gain.throttle_fall_older_pct',
        'pack.land_now_cell_v' => 'pack.flight_end_cell_v',
        // Microseconds above 1000, of 1000: a thousandth each.
        'motors.idle_us' => 'motors.idle_permille',
    ];

    /** A width of Q is a width of its inverse: Q is the centre over the width at −3 dB. */
    private const WIDTHS = ['notch.motor.width_q' => 'notch.motor.width_pct', 'notch.tracking.width_q' => 'notch.tracking.width_pct'];

    private const RECORDERS = ['none' => 'nothing', 'flash' => 'board_memory', 'serial' => 'wire'];
    private const DIRECTIONS = ['normal' => 'as_wired', 'reversed' => 'swapped'];
    private const SYNC_LOSS_PCT = ['off' => 0.0, 'gentle' => 25.0, 'strong' => 50.0];
    private const FEEL = '~^feel\.(roll|pitch|yaw)\.(half|full)_stick_dps$~';
    private const FEEL_AT_CENTRE = '~^feel\.(roll|pitch|yaw)\.centre_dps$~';

    /** Of ESCs by full name, or by key alone as an ESC itself has them. */
    private const DIRECTION = '~^(esc\.[a-z_]+\.)?direction$~';

    private const SYNC_LOSS = '~^(esc\.[a-z_]+\.)?sync_loss_response$~';

    /**
     * @template T
     *
     * @param array<T> $values by name of then or of now
     *
     * @return array<string, T|float|string> by name of now, in the same order
     */
    public static function carry(array $values): array
    {
        $now = [];
        foreach ($values as $name => $value) {
            foreach (self::one((string) $name, $value, $values) as $as => $is) {
                $now[$as] = $is;
            }
        }

        return $now;
    }

    /**
     * @param array<mixed> $all
     *
     * @return array<string, mixed> none for what is told by another
     */
    private static function one(string $name, mixed $value, array $all): array
    {
        if (isset(self::RENAMED[$name])) {
            return [self::RENAMED[$name] => $value];
        }
        if (isset(self::WIDTHS[$name])) {
            return [self::WIDTHS[$name] => is_numeric($value) && $value > 0 ? round(100 / $value, 1) : $value];
        }

        return match (true) {
            'notch.tracking.low_hz' === $name => ['notch.tracking.band_hz' => self::band($value, $all['notch.tracking.high_hz'] ?? null)],
            'notch.tracking.high_hz' === $name => isset($all['notch.tracking.low_hz'])
                ? []
                : ['notch.tracking.band_hz' => self::band(null, $value)],
            'link_loss.hold_ds' === $name => ['link_loss.hold_ms' => is_numeric($value) ? 100 * $value : $value],
            'recorder.kind' === $name => ['recorder.writes_to' => self::word(self::RECORDERS, $value)],
            1 === preg_match('~^arm\.([a-z_]+\.(?:forward|right)_mm)$~', $name, $m) => ["motor_place.$m[1]" => $value],
            1 === preg_match(self::FEEL, $name, $m) => ["feel.$m[1].$m[2]_dps" => $value],
            1 === preg_match(self::FEEL_AT_CENTRE, $name, $m) => ["feel.$m[1].quarter_dps" => self::quarter($m[1], $value, $all)],
            1 === preg_match(self::DIRECTION, $name) => [$name => self::word(self::DIRECTIONS, $value)],
            1 === preg_match(self::SYNC_LOSS, $name, $m) => [
                ($m[1] ?? '').'sync_loss_power_cut_pct' => self::word(self::SYNC_LOSS_PCT, $value),
            ],
            default => [$name => $value],
        };
    }

    /** @param array<string, float|string> $words */
    private static function word(array $words, mixed $value): mixed
    {
        return \is_string($value) ? $words[$value] ?? $value : $value;
    }

    private static function band(mixed $low, mixed $high): string
    {
        $low = is_numeric($low) ? (int) round((float) $low) : 100;
        $high = is_numeric($high) ? (int) round((float) $high) : 500;

        return min($low, $high).','.max($low, $high);
    }

    /**
     * The rate at quarter stick by the law of then: c·x + (full − c)·x^p, with p so that the half-stick rate is met.
     *
     * @param mixed        $centre its slope at centre, c
     * @param array<mixed> $all
     */
    private static function quarter(string $axis, mixed $centre, array $all): mixed
    {
        $half = $all["feel.$axis.half_stick_dps"] ?? null;
        $full = $all["feel.$axis.full_stick_dps"] ?? null;
        if (!is_numeric($centre)) {
            return $centre;
        }
        if (!is_numeric($half) || !is_numeric($full)) {
            return max(5.0, round($centre / 4));
        }
        $rise = (float) $half - $centre / 2;
        $quarter = $full > $centre && $rise > 0
            ? $centre / 4 + ($full - $centre) * 0.25 ** log(($full - $centre) / $rise, 2)
            : $half / 2;

        return max(5.0, min((float) $half - 1, round($quarter)));
    }
}
