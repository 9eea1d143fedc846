<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Craft\Axis;

/**
 * Ridges of a noise map: the straight lines hz = a + b·throttle that most of its peaks lie on.
 *
 * Peaks per bin with a prominence of at least 6 dB; every pair of them proposes a line (Fischler and Bolles 1981), the
 * one with the most weight near it wins, is fitted by weighted least squares, and its peaks are set aside.
 */
final readonly class Ridges
{
    private const FROM_HZ = 15.0;
    private const PROMINENCE_DB = 6.0;
    private const MOST = 8;
    private const FAINT_DB = 34.0;
    private const SLOWEST_HZ = 30.0;
    private const HIGHEST = 8;
    private const LEAST_BINS = 4;

    /** Over a narrower range of throttle nobody can tell standing from climbing, %. */
    private const LEAST_SPAN_PCT = 25.0;

    /** A standing ridge moves by less than this share of its frequency. */
    private const STANDS = 0.1;

    /** @return list<Ridge> strongest first */
    public static function of(NoiseMap $map, Axis $axis): array
    {
        $points = [];
        foreach ($map->peaks(self::FROM_HZ, self::PROMINENCE_DB) as $bin => $peaks) {
            foreach ($peaks as $peak) {
                $points[] = [
                    'x' => NoiseMap::middle($bin),
                    'hz' => $peak['hz'],
                    'db' => $peak['db'],
                    'w' => min(30.0, $peak['prominence']) * sqrt(min(16, $map->windows[$bin])),
                ];
            }
        }
        $least = min(self::LEAST_BINS, max(1, \count($map->density)));
        $ridges = $whole = [];
        while (\count($ridges) < self::MOST && [] !== $points) {
            $line = self::best($points, $map->stepHz);
            if (null === $line) {
                break;
            }
            [$a, $b, $on] = $line;
            $bins = array_unique(array_map(static fn (int $i): string => (string) $points[$i]['x'], $on));
            $left = array_values(array_diff_key($points, array_flip($on)));
            if (\count($bins) >= $least) {
                $ridge = self::fitted(array_map(static fn (int $i): array => $points[$i], $on), $axis, $map->stepHz);
                // Bins without it between those that have it: a line through chance peaks is thin.
                $between =
                    null === $ridge
                        ? []
                        : array_filter(
                            array_keys($map->density),
                            static fn (int $bin): bool => NoiseMap::middle($bin) >= $ridge->fromPct
                                && NoiseMap::middle($bin) <= $ridge->toPct,
                        );
                if (null !== $ridge && \count($bins) >= 0.45 * \count($between)) {
                    $ridges[] = $ridge;
                    $whole["$ridge->hzAtZero/$ridge->hzPerPct"] = \count($bins) >= 0.8 * \count($between);
                }
            }
            if (\count($left) === \count($points)) {
                break;
            }
            $points = $left;
        }
        usort($ridges, static fn (Ridge $p, Ridge $q): int => $q->db <=> $p->db);
        // What is this much weaker than the strongest, and not in nearly every bin, is chance as likely as not.
        $ridges = array_values(
            array_filter(
                $ridges,
                static fn (Ridge $r): bool => $r->db > $ridges[0]->db - self::FAINT_DB || $whole["$r->hzAtZero/$r->hzPerPct"],
            ),
        );

        $ridges = self::families($ridges);

        return [...$ridges, ...Harmonics::missing($map, $ridges)];
    }

    /**
     * @param list<array{x: float, hz: float, db: float, w: float}> $points
     *
     * @return array{float, float, list<int>}|null intercept, slope, and the points near the line, one per bin
     */
    private static function best(array $points, float $stepHz): ?array
    {
        $n = \count($points);
        $best = null;
        $most = 0.0;
        for ($i = 0; $i < $n; ++$i) {
            for ($j = $i; $j < $n; ++$j) {
                $dx = $points[$j]['x'] - $points[$i]['x'];
                if ($i !== $j && abs($dx) < 5) {
                    continue;
                }
                // A point alone proposes the level line through it.
                $b = $i === $j ? 0.0 : ($points[$j]['hz'] - $points[$i]['hz']) / $dx;
                if ($b < -1.5 || $b > 14) {
                    continue;
                }
                $a = $points[$i]['hz'] - $b * $points[$i]['x'];
                $weight = 0.0;
                $seen = [];
                foreach ($points as $p) {
                    $at = $a + $b * $p['x'];
                    $near = max(1.2 * $stepHz, 0.025 * $at);
                    $off = abs($p['hz'] - $at);
                    if ($off < $near) {
                        $added = $p['w'] * (1 - (0.5 * $off) / $near);
                        $key = (string) $p['x'];
                        if (!isset($seen[$key]) || $seen[$key] < $added) {
                            $weight += $added - ($seen[$key] ?? 0.0);
                            $seen[$key] = $added;
                        }
                    }
                }
                if ($weight > $most) {
                    $most = $weight;
                    $best = [$a, $b];
                }
            }
        }
        if (null === $best) {
            return null;
        }
        [$a, $b] = $best;
        $on = [];
        foreach ($points as $k => $p) {
            $at = $a + $b * $p['x'];
            if (abs($p['hz'] - $at) < max(1.6 * $stepHz, 0.035 * $at)) {
                $on[] = $k;
            }
        }

        return [$a, $b, $on];
    }

    /** @param list<array{x: float, hz: float, db: float, w: float}> $points */
    private static function fitted(array $points, Axis $axis, float $stepHz): ?Ridge
    {
        $keep = $points;
        $a = $b = $error = 0.0;
        for ($round = 0; $round < 4; ++$round) {
            $w = $x = $y = $xx = $xy = 0.0;
            foreach ($keep as $p) {
                $w += $p['w'];
                $x += $p['w'] * $p['x'];
                $y += $p['w'] * $p['hz'];
                $xx += $p['w'] * $p['x'] ** 2;
                $xy += $p['w'] * $p['x'] * $p['hz'];
            }
            if ($w <= 0) {
                return null;
            }
            $spread = $xx / $w - ($x / $w) ** 2;
            $b = $spread > 1e-9 ? ($xy / $w - ($x * $y) / $w / $w) / $spread : 0.0;
            $a = $y / $w - ($b * $x) / $w;
            $square = 0.0;
            foreach ($keep as $p) {
                $square += $p['w'] * ($p['hz'] - $a - $b * $p['x']) ** 2;
            }
            $error = sqrt($square / $w);
            $limit = max(2.2 * $error, 0.4 * $stepHz);
            $next = array_values(array_filter($keep, static fn (array $p): bool => abs($p['hz'] - $a - $b * $p['x']) <= $limit));
            if (\count($next) === \count($keep) || \count($next) < 3) {
                break;
            }
            $keep = $next;
        }
        if ([] === $keep) {
            return null;
        }
        $xs = array_column($keep, 'x');
        $from = min($xs) - NoiseMap::BIN_PCT / 2;
        $to = max($xs) + NoiseMap::BIN_PCT / 2;
        $span = $to - $from;
        $hz = $a + ($b * ($from + $to)) / 2;
        $deviation = self::deviation($xs);
        $moved = abs($b) * $span;
        // What the slope may be off by, over the range, given how the peaks scatter.
        $doubt = $deviation > 0 ? ((2 * max($error, 0.25 * $stepHz)) / ($deviation * sqrt(\count($keep)))) * $span : \INF;
        $kind = match (true) {
            $span < self::LEAST_SPAN_PCT => RidgeKind::CannotTell,
            $moved < self::STANDS * $hz && $moved <= max(2 * $stepHz, 1.5 * $doubt) => RidgeKind::Standing,
            $b > 0 && $moved >= self::STANDS * $hz && $moved > $doubt => RidgeKind::Climbing,
            default => RidgeKind::CannotTell,
        };

        return new Ridge($kind, $axis, $a, $b, $hz, null, max(array_column($keep, 'db')), $from, $to);
    }

    /** @param list<float> $xs */
    private static function deviation(array $xs): float
    {
        $mean = array_sum($xs) / \count($xs);

        return sqrt(array_sum(array_map(static fn (float $x): float => ($x - $mean) ** 2, $xs)) / \count($xs));
    }

    /**
     * Climbing ridges at whole multiples of the lowest are one family.
     *
     * @param list<Ridge> $ridges
     *
     * @return list<Ridge>
     */
    private static function families(array $ridges): array
    {
        $climbing = array_filter($ridges, static fn (Ridge $r): bool => RidgeKind::Climbing === $r->kind);
        usort($climbing, static fn (Ridge $p, Ridge $q): int => $p->hzAt(50) <=> $q->hzAt(50));
        // The shaft's own line: slower than this no motor turns in flight.
        $first = array_values(array_filter($climbing, static fn (Ridge $r): bool => $r->hzAt(50) >= self::SLOWEST_HZ))[0] ?? null;
        foreach ($ridges as $i => $ridge) {
            if (null !== $first && RidgeKind::Climbing === $ridge->kind) {
                $at = ($ridge->fromPct + $ridge->toPct) / 2;
                $ratio = $ridge->hzAt($at) / max(1.0, $first->hzAt($at));
                if (round($ratio) >= 1 && round($ratio) <= self::HIGHEST && abs($ratio - round($ratio)) < 0.05 * round($ratio)) {
                    $ridges[$i] = $ridge->inFamily((int) round($ratio));
                }
            }
        }

        return $ridges;
    }
}
