<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Ortholex\Core\Homing\ReturnPlan;

/**
 * The way home: from above, with the point of no return around home by where the wind blows from, and from the side, as planned and as
 * flown.
 */
final readonly class ReturnDrawing
{
    private const PLAN = ['x' => 200.0, 'y' => 170.0, 'r' => 140.0];
    private const SIDE = ['left' => 440.0, 'right' => 850.0, 'top' => 34.0, 'foot' => 300.0];
    private const DIRECTIONS = 36;

    private float $metres;
    private float $height;

    /**
     * @param array<int, float|null> $noReturnM by degrees that it lies from home, in m; null where it does not come home from there
     */
    public function __construct(
        public ReturnPlan $plan,
        public float $distanceM,
        public float $heightM,
        public float $windMs,
        public float $fromDeg,
        public array $noReturnM,
        public ?ReturnPath $path,
    ) {
        $far = [1.2 * $distanceM, 20.0];
        foreach ($path->points ?? [] as $p) {
            $far[] = 1.1 * hypot($p[1], $p[2]);
        }
        // A point of no return far beyond is cut at the rim.
        $known = array_values(array_filter($noReturnM, static fn (?float $m): bool => null !== $m));
        $far[] = min(1.3 * ([] === $known ? 0.0 : min($known)), 1.5 * max($far));
        $this->metres = max($far);
        $this->height = 1.15 * max(
            $plan->backAtM($heightM),
            ...array_map(static fn (array $p): float => $p[3], $path->points ?? [[0, 0, 0, 0]]),
        );
    }

    /**
     * The distance from which the charge just brings it home, all around.
     *
     * @param \Closure(float): (float|null) $noReturn by how far the wind blows beside straight against, deg
     *
     * @return array<int, float|null>
     */
    public static function around(float $fromDeg, \Closure $noReturn): array
    {
        $around = [];
        for ($i = 0; $i < self::DIRECTIONS; ++$i) {
            $deg = (int) (360 / self::DIRECTIONS * $i);
            // Lying at this bearing it flies the other way.
            $around[$deg] = $noReturn($fromDeg - ($deg + 180));
        }

        return $around;
    }

    /** @return array{x: float, y: float} of a place north and east of home, m */
    public function at(float $north, float $east): array
    {
        return [
            'x' => round(self::PLAN['x'] + (self::PLAN['r'] * $east) / $this->metres, 1),
            'y' => round(self::PLAN['y'] - (self::PLAN['r'] * $north) / $this->metres, 1),
        ];
    }

    /** The line of no return, cut at the rim. */
    public function rim(): string
    {
        $path = '';
        foreach ($this->noReturnM as $deg => $m) {
            $r = min($m ?? 0.0, 1.02 * $this->metres);
            $p = $this->at($r * cos(deg2rad($deg)), $r * sin(deg2rad($deg)));
            $path .= ('' === $path ? 'M' : 'L')."{$p['x']} {$p['y']}";
        }

        return $path.'z';
    }

    /** @return array{float, float}|null the nearest and the farthest that it still comes home from, m */
    public function spans(): ?array
    {
        $known = array_values(array_filter($this->noReturnM, static fn (?float $m): bool => null !== $m));

        return [] === $known ? null : [min($known), max($known)];
    }

    /** Whether the line of no return lies within what is drawn. */
    public function showsRim(): bool
    {
        return null !== $this->spans() && $this->spans()[0] < $this->metres;
    }

    /** @return list<array{m: float, r: float}> */
    public function rings(): array
    {
        $step = self::round($this->metres / 3);
        $rings = [];
        for ($m = $step; $m <= $this->metres; $m += $step) {
            $rings[] = ['m' => $m, 'r' => round((self::PLAN['r'] * $m) / $this->metres, 1)];
        }

        return $rings;
    }

    /**
     * The flown path from above, cut by stage.
     *
     * @return list<array{stage: string, path: string}>
     */
    public function flown(): array
    {
        return $this->pieces(fn (array $p): array => $this->at($p[1], $p[2]));
    }

    /**
     * The same from the side: height over the distance from home.
     *
     * @return list<array{stage: string, path: string}>
     */
    public function side(): array
    {
        return $this->pieces(fn (array $p): array => ['x' => $this->x(hypot($p[1], $p[2])), 'y' => $this->y($p[3])]);
    }

    /** As planned, from the side. */
    public function planned(): string
    {
        $back = $this->plan->backAtM($this->heightM);

        return \sprintf(
            'M%s %sV%sH%sV%s',
            $this->x($this->distanceM),
            $this->y($this->heightM),
            $this->y($back),
            $this->x(0.0),
            $this->y(0.0),
        );
    }

    public function x(float $metres): float
    {
        return round(self::SIDE['left'] + (self::SIDE['right'] - self::SIDE['left']) * min(1.0, $metres / $this->metres), 1);
    }

    public function y(float $metres): float
    {
        return round(self::SIDE['foot'] - ((self::SIDE['foot'] - self::SIDE['top']) * $metres) / $this->height, 1);
    }

    /** @return array{list<float>, list<float>} ticks of distance and of height, m */
    public function ticks(): array
    {
        return [range(0.0, $this->metres, self::round($this->metres / 5)), range(0.0, $this->height, self::round($this->height / 4))];
    }

    /**
     * Where the wind's arrow begins and ends.
     *
     * @return array{float, float, float, float, float} x and y of both, and how high its words stand
     */
    public function wind(): array
    {
        [$s, $c] = [sin(deg2rad($this->fromDeg)), cos(deg2rad($this->fromDeg))];
        [$far, $near] = [self::PLAN['r'] + 22, self::PLAN['r'] - 4];

        return [
            round(self::PLAN['x'] + $far * $s, 1),
            round(self::PLAN['y'] - $far * $c, 1),
            round(self::PLAN['x'] + $near * $s, 1),
            round(self::PLAN['y'] - $near * $c, 1),
            round(self::PLAN['y'] - ($far - ($c > 0 ? 14 : 0)) * $c + ($c > 0 ? 0 : 12), 1),
        ];
    }

    /**
     * @param \Closure(array{float, float, float, float, float, string}): array{x: float, y: float} $where
     *
     * @return list<array{stage: string, path: string}>
     */
    private function pieces(\Closure $where): array
    {
        $stages = $paths = [];
        $before = null;
        foreach ($this->path->points ?? [] as $p) {
            $at = $where($p);
            if ($p[5] !== $before) {
                if ([] !== $paths) {
                    $paths[\count($paths) - 1] .= "L{$at['x']} {$at['y']}";
                }
                $stages[] = $before = $p[5];
                $paths[] = "M{$at['x']} {$at['y']}";
            } else {
                $paths[\count($paths) - 1] .= "L{$at['x']} {$at['y']}";
            }
        }

        return array_map(static fn (string $stage, string $path): array => ['stage' => $stage, 'path' => $path], $stages, $paths);
    }

    private static function round(float $rough): float
    {
        $power = 10 ** floor(log10(max(1e-6, $rough)));
        foreach ([1.0, 2.0, 5.0, 10.0] as $one) {
            if ($one * $power >= $rough) {
                return $one * $power;
            }
        }

        return 10 * $power;
    }
}
