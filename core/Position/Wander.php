<?php

declare(strict_types=1);

namespace Ortholex\Core\Position;

use Ortholex\Core\Signal\Statistics;

/**
 * How much the position of a receiver that stands still wanders: places about their mean, and the circles that hold half and 95 % of
 * them.
 */
final readonly class Wander
{
    /** Fewer say nothing. */
    public const LEAST = 10;

    /**
     * @param list<array{float, float}> $points north and east of the mean, m
     * @param float                     $cep50M radius that holds half of them
     * @param float                     $r95M   radius that holds 95 % of them
     */
    private function __construct(
        public float $latDeg,
        public float $lonDeg,
        public array $points,
        public float $cep50M,
        public float $r95M,
    ) {
    }

    /**
     * @param list<array{float, float}> $places latitude and longitude, deg
     *
     * @return self|null null for fewer than LEAST
     */
    public static function of(array $places): ?self
    {
        if (\count($places) < self::LEAST) {
            return null;
        }
        $about = LocalMetres::about($places[0][0], $places[0][1]);
        $metres = array_map(static fn (array $p): array => $about->of($p[0], $p[1]), $places);
        $mean = [Statistics::mean(array_column($metres, 0)), Statistics::mean(array_column($metres, 1))];
        $points = array_map(static fn (array $m): array => [$m[0] - $mean[0], $m[1] - $mean[1]], $metres);
        $far = array_map(static fn (array $p): float => hypot($p[0], $p[1]), $points);
        [$lat, $lon] = $about->place($mean[0], $mean[1]);

        return new self($lat, $lon, $points, Statistics::quantile($far, 0.5), Statistics::quantile($far, 0.95));
    }
}
