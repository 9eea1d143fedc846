<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\Statistics;

/** Where a notch sat at each level of a noise map: the middle, and from where to where it moved or the motors differed. */
final readonly class NotchTrack
{
    public const MOTOR = 'motor notch';
    public const TRACKING = 'tracking notch';

    /** The speed itself, where no notch is known to have followed it. */
    public const ROTOR = 'rotor speed';

    private const RATE_HZ = 100.0;
    private const LEAST_SAMPLES = 10;

    /**
     * @param 'motor notch'|'tracking notch'|'rotor speed' $kind
     * @param int                                       $number of the harmonic or of the notch
     * @param array<int, array{float, float, float}>    $hz     low, middle, high by bin of NoiseMap
     */
    private function __construct(public string $kind, public int $number, public array $hz)
    {
    }

    /**
     * From the logged speeds and notch frequencies, and the settings in the log's head.
     *
     * @param list<list<float>> $levelPct what the map is drawn against, by run
     *
     * @return list<self>
     */
    public static function of(FlightLog $log, array $levelPct): array
    {
        $factor = max(1, (int) round($log->clock->rateHz / self::RATE_HZ));
        $bins = [];
        foreach ($levelPct as $run) {
            foreach (Statistics::means($run, $factor) as $level) {
                $bins[] = (int) floor(max(0.0, min(99.999, $level)) / NoiseMap::BIN_PCT);
            }
        }
        $slow = static function (string $name) use ($log, $factor): array {
            $all = [];
            foreach ($log->runs($name) as $run) {
                array_push($all, ...Statistics::means($run, $factor));
            }

            return $all;
        };
        $rotors = [];
        foreach ($log->places() as $place) {
            if ($log->has("rpm_$place")) {
                foreach ($slow("rpm_$place") as $i => $rpm) {
                    if ($rpm > 0) {
                        $rotors[$bins[$i]][] = $rpm / 60;
                    }
                }
            }
        }
        $tracks = [];
        $orders = array_filter(array_map('intval', explode(',', $log->setting('notch.motor.orders') ?? '')), static fn (int $k): bool => $k > 0);
        $floor = (float) ($log->setting('notch.motor.floor_hz') ?? 0);
        if ([] !== $rotors) {
            foreach ([] === $orders ? [1] : $orders as $k) {
                $tracks[] = new self([] === $orders ? self::ROTOR : self::MOTOR, $k, self::spread($rotors, static fn (float $hz): float => [] === $orders ? $hz : max($floor, $k * $hz)));
            }
        }
        for ($n = 1; $log->has("tracking_notch_{$n}_hz"); ++$n) {
            $at = [];
            foreach ($slow("tracking_notch_{$n}_hz") as $i => $hz) {
                if ($hz > 0) {
                    $at[$bins[$i]][] = $hz;
                }
            }
            $tracks[] = new self(self::TRACKING, $n, self::spread($at, static fn (float $hz): float => $hz));
        }

        return array_values(array_filter($tracks, static fn (self $t): bool => [] !== $t->hz));
    }

    /**
     * @param array<int, list<float>>  $byBin
     * @param \Closure(float): float $to
     *
     * @return array<int, array{float, float, float}>
     */
    private static function spread(array $byBin, \Closure $to): array
    {
        $out = [];
        ksort($byBin);
        foreach ($byBin as $bin => $values) {
            if (\count($values) >= self::LEAST_SAMPLES) {
                $hz = array_map($to, $values);
                sort($hz);
                $out[$bin] = [Statistics::quantileOfSorted($hz, 0.1), Statistics::quantileOfSorted($hz, 0.5), Statistics::quantileOfSorted($hz, 0.9)];
            }
        }

        return $out;
    }
}
