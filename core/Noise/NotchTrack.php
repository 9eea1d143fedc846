<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\Statistics;

/** Where a notch sat at each level of a noise map: the middle, and from where to where it moved or the motors differed. */
final readonly class NotchTrack
{
    private const LEAST_SAMPLES = 10;

    /** Of a longer trace about so many are looked at, evenly spread. */
    private const ENOUGH_SAMPLES = 10_000;

    /**
     * @param int                                       $number of the harmonic or of the notch
     * @param array<int, array{float, float, float}>    $hz     low, middle, high by bin of NoiseMap
     */
    private function __construct(public NotchKind $kind, public int $number, public array $hz)
    {
    }

    /**
     * From the logged speeds and notch frequencies, and the settings in the log's head.
     *
     * @template K of string
     *
     * @param array<K, list<list<float>>> $levels what maps are drawn against, %, by run
     * @param list<list<list<float>>>     $rotors of RotorSpeed::logged()
     * @param int                         $factor samples of the log that were averaged into one of either
     *
     * @return array<K, list<self>>
     */
    public static function against(FlightLog $log, array $levels, array $rotors, int $factor): array
    {
        $hz = array_map(
            static fn (array $runs): array => array_map(static fn (float $rpm): float => $rpm / 60, array_merge(...$runs)),
            $rotors,
        );
        $tracking = [];
        for ($n = 1; $log->has("tracking_notch_{$n}_hz"); ++$n) {
            $tracking[$n] = array_merge(...$log->decimatedRuns("tracking_notch_{$n}_hz", $factor));
        }
        $orders = array_values(
            array_filter(array_map('intval', explode(',', $log->setting('notch.motor.orders') ?? '')), static fn (int $k): bool => $k > 0),
        );
        $floor = (float) ($log->setting('notch.motor.floor_hz') ?? 0);
        $out = [];
        foreach ($levels as $name => $level) {
            $bins = array_map(
                static fn (float $v): int => (int) floor(max(0.0, min(99.999, $v)) / NoiseMap::BIN_PCT),
                array_merge(...$level),
            );
            $tracks = [];
            $speeds = self::sorted(self::binned($bins, $hz));
            foreach ([] === $speeds ? [] : ([] === $orders ? [1] : $orders) as $k) {
                $tracks[] = new self(
                    [] === $orders ? NotchKind::Rotor : NotchKind::Motor,
                    $k,
                    self::spread($speeds, static fn (float $hz): float => [] === $orders ? $hz : max($floor, $k * $hz)),
                );
            }
            foreach ($tracking as $n => $sits) {
                $sat = self::spread(self::sorted(self::binned($bins, [$sits])), static fn (float $hz): float => $hz);
                $tracks[] = new self(NotchKind::Tracking, $n, $sat);
            }
            $out[$name] = array_values(array_filter($tracks, static fn (self $t): bool => [] !== $t->hz));
        }

        return $out;
    }

    /**
     * @param list<int>         $bins   by sample
     * @param list<list<float>> $traces Hz; where one is zero it says nothing
     *
     * @return array<int, list<float>>
     */
    private static function binned(array $bins, array $traces): array
    {
        $out = [];
        foreach ($traces as $trace) {
            $every = max(1, intdiv(\count($trace), self::ENOUGH_SAMPLES));
            for ($i = 0, $n = \count($trace); $i < $n; $i += $every) {
                if ($trace[$i] > 0) {
                    $out[$bins[$i]][] = $trace[$i];
                }
            }
        }

        return $out;
    }

    /**
     * @param array<int, list<float>> $byBin
     *
     * @return array<int, list<float>> of bins that say something, each from low to high
     */
    private static function sorted(array $byBin): array
    {
        $byBin = array_filter($byBin, static fn (array $values): bool => \count($values) >= self::LEAST_SAMPLES);
        ksort($byBin);
        foreach ($byBin as $bin => $values) {
            sort($values);
            $byBin[$bin] = $values;
        }

        return $byBin;
    }

    /**
     * @param array<int, list<float>> $sorted of sorted()
     * @param \Closure(float): float $to     where that puts the notch; never lower for a higher speed, so that order stays
     *
     * @return array<int, array{float, float, float}>
     */
    private static function spread(array $sorted, \Closure $to): array
    {
        return array_map(
            static fn (array $hz): array => [
                $to(Statistics::quantileOfSorted($hz, 0.1)),
                $to(Statistics::quantileOfSorted($hz, 0.5)),
                $to(Statistics::quantileOfSorted($hz, 0.9)),
            ],
            $sorted,
        );
    }

    /** @return array{kind: string, number: int, hz: array<int, list<float>>} */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind->value,
            'number' => $this->number,
            'hz' => array_map(static fn (array $hz): array => array_map(static fn (float $v): float => round($v, 1), $hz), $this->hz),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $hz = [];
        foreach (array_keys($data->map('hz')) as $bin) {
            $three = $data->part('hz')->numbers((string) $bin);
            $hz[(int) $bin] = [$three[0] ?? 0.0, $three[1] ?? 0.0, $three[2] ?? 0.0];
        }

        return new self($data->choice('kind', NotchKind::class), $data->whole('number'), $hz);
    }
}
