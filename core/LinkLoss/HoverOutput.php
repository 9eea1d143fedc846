<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Pack\PackError;
use Ortholex\Core\Signal\Statistics;

/**
 * The output at which a craft hovers, from any flight: the median of level, slow, steady windows. Thrust is felt by the vertical
 * accelerometer, so a window at a little more or less than one gravity tells it too; and it goes with output times voltage, so all
 * windows are brought to one voltage.
 */
final readonly class HoverOutput
{
    private const WINDOW_S = 0.5;

    /** Felt of one gravity, at least and at most. */
    private const FELT = [0.6, 1.6];

    private const MOST_DPS = 90.0;
    private const MOST_CHANGE_PCT = 8.0;
    private const LEAST_WINDOWS = 4;

    /**
     * @param float $spreadPct half of what the middle half of the windows spans, in output
     * @param float $packV     the voltage that it holds at
     */
    private function __construct(public float $hoverPct, public float $spreadPct, public float $packV, public int $windows)
    {
    }

    /** @throws PackError where the log has no such windows */
    public static function of(FlightLog $log): self
    {
        $outputs = array_map(static fn (string $place): string => "output_{$place}_pct", $log->places());
        if ([] === $outputs || !$log->has('accel_z_g')) {
            throw PackError::noTrace([] === $outputs ? 'output_front_left_pct' : 'accel_z_g');
        }
        $products = $volts = [];
        foreach (self::windows($log, $outputs) as [$output, $v]) {
            $products[] = $output * ($v ?? 1.0);
            $volts[] = $v ?? 1.0;
        }
        if (\count($products) < self::LEAST_WINDOWS) {
            throw PackError::noHover();
        }
        $packV = Statistics::median($volts);
        $spread = (Statistics::quantile($products, 0.75) - Statistics::quantile($products, 0.25)) / 2 / $packV;

        return new self(
            Statistics::median($products) / $packV,
            $spread,
            $log->has('battery_v') ? $packV : 0.0,
            \count($products),
        );
    }

    /** @return array<string, float|int> */
    public function toArray(): array
    {
        return [
            'hover_pct' => round($this->hoverPct, 2),
            'spread_pct' => round($this->spreadPct, 2),
            'pack_v' => round($this->packV, 2),
            'windows' => $this->windows,
        ];
    }

    /**
     * @param list<string> $outputs
     *
     * @return \Generator<array{float, float|null}> output at one gravity, and pack voltage
     */
    private static function windows(FlightLog $log, array $outputs): \Generator
    {
        $wide = max(1, (int) round(self::WINDOW_S * $log->clock->rateHz));
        $up = $log->trace('accel_z_g');
        $sent = array_map($log->trace(...), $outputs);
        $volts = $log->has('battery_v') ? $log->trace('battery_v') : null;
        $throttle = $log->has('throttle_pct') ? $log->trace('throttle_pct') : $sent[0];
        $rates = [];
        foreach (['roll', 'pitch'] as $axis) {
            $rates[] = $log->has("setpoint_{$axis}_dps") ? $log->trace("setpoint_{$axis}_dps") : [];
        }
        for ($from = 0, $n = \count($up); $from + $wide <= $n; $from += $wide) {
            $felt = -self::mean($up, $from, $wide);
            $part = \array_slice($throttle, $from, $wide);
            $quick = 0.0;
            foreach ($rates as $rate) {
                $quick = max($quick, [] === $rate ? 0.0 : Statistics::mean(array_map(abs(...), \array_slice($rate, $from, $wide))));
            }
            if (
                $felt < self::FELT[0]
                || $felt > self::FELT[1]
                || [] === $part
                || max($part) - min($part) > self::MOST_CHANGE_PCT
                || $quick > self::MOST_DPS
            ) {
                continue;
            }
            $output = array_sum(array_map(static fn (array $one): float => self::mean($one, $from, $wide), $sent)) / \count($sent);
            // On the ground an accelerometer feels one gravity too, with the motors idling.
            if ($output > 8.0) {
                yield [$output / sqrt($felt), null === $volts ? null : self::mean($volts, $from, $wide)];
            }
        }
    }

    /** @param list<float> $trace */
    private static function mean(array $trace, int $from, int $wide): float
    {
        return Statistics::mean(\array_slice($trace, $from, $wide));
    }
}
