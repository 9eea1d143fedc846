<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

/** The path of a lost craft as it was flown: height over time, and how far it drifted. */
final readonly class PathPlot
{
    private const LEFT = 44.0;
    private const RIGHT = 400.0;
    private const TOP = 18.0;
    private const FOOT = 162.0;

    /** Lower than this it is down, m. */
    private const DOWN_M = 0.3;

    private float $seconds;
    private float $height;

    /**
     * @param list<array{float, float, float, float, float, string}> $points s, north, east, height, m/s down, stage
     * @param array<string, mixed>                                   $told   what it was flown with
     */
    public function __construct(
        public array $points,
        public float $offS,
        public float $noticedS,
        public float $impactMs,
        public array $told,
    ) {
        $this->seconds = max(1.0, ...array_column($points, 0));
        $this->height = 1.1 * max(1.0, ...array_column($points, 3));
    }

    /** @param array<mixed> $kept of the job that flew it */
    public static function of(array $kept): ?self
    {
        $points = [];
        foreach (\is_array($kept['points'] ?? null) ? $kept['points'] : [] as $p) {
            if (\is_array($p) && 6 === \count($p) && \is_string($p[5] ?? null)) {
                $number = static fn (int $i): float => is_numeric($p[$i] ?? null) ? (float) $p[$i] : 0.0;
                $points[] = [$number(0), $number(1), $number(2), $number(3), $number(4), $p[5]];
            }
        }
        $number = static fn (string $name): float => is_numeric($kept[$name] ?? null) ? (float) $kept[$name] : -1.0;
        /** @var array<string, mixed> $told */
        $told = \is_array($kept['told'] ?? null) ? $kept['told'] : [];

        return \count($points) < 2 ? null : new self($points, $number('off'), $number('noticed'), $number('impact'), $told);
    }

    /** @return array{x: list<float|string>, y: list<float|string>} how places become values */
    public function scale(): array
    {
        return ['x' => [self::LEFT, self::RIGHT, 0.0, $this->seconds, 's'], 'y' => [self::FOOT, self::TOP, 0.0, $this->height, 'm']];
    }

    public function line(): string
    {
        $line = '';
        foreach ($this->points as $p) {
            $line .= ('' === $line ? 'M' : 'L').$this->x($p[0]).' '.$this->y($p[3]);
        }

        return $line;
    }

    public function x(float $s): float
    {
        return round(self::LEFT + ((self::RIGHT - self::LEFT) * $s) / $this->seconds, 1);
    }

    public function y(float $metres): float
    {
        return round(self::FOOT - ((self::FOOT - self::TOP) * $metres) / $this->height, 1);
    }

    /** @return list<array{at: float, x: float, stage: string}> where each stage begins */
    public function stages(): array
    {
        $out = [];
        $before = '';
        foreach ($this->points as $p) {
            if ($p[5] !== $before) {
                $out[] = ['at' => $p[0], 'x' => $this->x($p[0]), 'stage' => $before = $p[5]];
            }
        }

        return $out;
    }

    /** @return array{list<float>, list<float>} ticks of seconds and of metres */
    public function ticks(): array
    {
        $step = static fn (float $most): float => [1.0, 2.0, 5.0, 10.0, 20.0, 50.0][min(5, (int) max(0, ceil(log($most / 6, 2.15))))];

        return [range(0.0, $this->seconds, $step($this->seconds)), range(0.0, $this->height, $step($this->height))];
    }

    /** From losing the link to the ground, or to where it was watched last, s. */
    public function lasted(): float
    {
        $until = $this->points[\count($this->points) - 1][0];
        foreach ($this->points as $p) {
            if ($p[0] > $this->offS && $p[3] < self::DOWN_M) {
                $until = $p[0];
                break;
            }
        }

        return max(0.0, $until - $this->offS);
    }

    public function drifted(): float
    {
        $last = $this->points[\count($this->points) - 1];

        return hypot($last[1], $last[2]);
    }

    /** Whether it was still in the air when the simulator gave up watching. */
    public function stillFlies(): bool
    {
        return $this->points[\count($this->points) - 1][3] > 1.0;
    }
}
