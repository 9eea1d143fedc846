<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;

/** The rate path and the D path that a set of settings describes, at a given loop rate. */
final readonly class RateFilters
{
    private function __construct(public FilterChain $ratePath, public FilterChain $dPath)
    {
    }

    /**
     * @param array<string, float|int|bool|string> $settings names of the current catalogue
     * @param list<float>                          $rotorHz  rotor speeds at which the motor notches stand; empty leaves them out
     */
    public static function of(array $settings, float $loopHz, array $rotorHz = []): self
    {
        $rate = self::path('rate_path', $settings, $loopHz);
        foreach (self::orders($settings) as $order) {
            foreach ($rotorHz as $hz) {
                $centre = max(self::number($settings, 'notch.motor.floor_hz', 80.0), $order * $hz);
                if ($centre < 0.48 * $loopHz) {
                    $rate = $rate->then(FilterStage::notch($centre, self::number($settings, 'notch.motor.width_q', 5.0), $loopHz));
                }
            }
        }

        return new self($rate, self::path('d_path', $settings, $loopHz));
    }

    /**
     * @param array<string, float|int|bool|string> $settings
     *
     * @return list<int> harmonics of the motor notches; none when rpm feedback is off
     */
    public static function orders(array $settings): array
    {
        $text = (string) ($settings['notch.motor.orders'] ?? '');

        return '' === $text || true !== ($settings['motors.rpm_feedback'] ?? false) ? [] : array_map('intval', explode(',', $text));
    }

    /** @param array<string, float|int|bool|string> $settings */
    private static function path(string $path, array $settings, float $loopHz): FilterChain
    {
        $chain = FilterChain::of($loopHz);
        foreach ([1, 2] as $n) {
            $hz = min(self::number($settings, "$path.stage.$n.cutoff_hz", 200.0), 0.48 * $loopHz);
            $chain = match ($settings["$path.stage.$n.kind"] ?? 'off') {
                'first_order' => $chain->then(FilterStage::firstOrder($hz, $loopHz)),
                'second_order' => $chain->then(FilterStage::secondOrder($hz, $loopHz)),
                default => $chain,
            };
        }

        return $chain;
    }

    /** @param array<string, float|int|bool|string> $settings */
    private static function number(array $settings, string $name, float $default): float
    {
        $value = $settings[$name] ?? $default;

        return \is_int($value) || \is_float($value) ? (float) $value : $default;
    }
}
