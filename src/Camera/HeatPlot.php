<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\Core\Video\Heat;

/** How warm a video transmitter gets on the bench, without airflow: as measured, and as it goes on. */
final readonly class HeatPlot
{
    public const LIMIT_C = 95.0;

    /** A rise of less tells nothing, °C. */
    private const LEAST_RISE_C = 1.5;

    private const LEFT = 46.0;
    private const RIGHT = 400.0;
    private const TOP = 18.0;
    private const FOOT = 162.0;
    private const HOTTEST_C = 120.0;

    private ?Heat $fit;
    private float $seconds;

    /** @param list<array{float, float, float}> $warmed s, °C, mW */
    public function __construct(public array $warmed)
    {
        // What it was at one power, the last.
        $power = [] === $warmed ? 0.0 : $warmed[\count($warmed) - 1][2];
        $at = array_values(array_filter($warmed, static fn (array $w): bool => $w[2] === $power));
        $alone = \count($at) === \count($warmed);
        // Reckoned with 1 W for whatever it really turns into heat: the curve is the same.
        // From where it was when it was first looked at.
        $first = $at[0][1] ?? 0.0;
        $rises = [] !== $at && abs($at[\count($at) - 1][1] - $first) > self::LEAST_RISE_C;
        $readings = array_map(static fn (array $w): array => [$w[0], $w[1]], $at);
        $this->fit = $alone && $rises ? Heat::fitted($readings, $first, 1.0, self::LIMIT_C) : null;
        $this->seconds = max([300.0, ...array_map(static fn (array $w): float => 1.2 * $w[0], $warmed)]);
    }

    public function points(): string
    {
        $path = '';
        foreach ($this->warmed as [$s, $c]) {
            $path .= \sprintf('M%s %sh2v2h-2z', round($this->x($s) - 1, 1), round($this->y($c) - 1, 1));
        }

        return $path;
    }

    /** As it goes on at this power; '' where that is not known. */
    public function curve(): string
    {
        if (null === $this->fit) {
            return '';
        }
        $path = '';
        for ($i = 0; $i <= 60; ++$i) {
            $s = ($this->seconds * $i) / 60;
            $path .= ('' === $path ? 'M' : 'L').$this->x($s).' '.$this->y(min(self::HOTTEST_C, $this->fit->at($s, 1.0)));
        }

        return $path;
    }

    /** Seconds on the bench until it protects itself; null for never, or not known. */
    public function until(): ?float
    {
        return $this->fit?->untilLimit(1.0);
    }

    public function isKnown(): bool
    {
        return null !== $this->fit;
    }

    /** @return array{x: list<float|string>, y: list<float|string>} */
    public function scale(): array
    {
        return [
            'x' => [self::LEFT, self::RIGHT, 0.0, $this->seconds, 's'],
            'y' => [self::FOOT, self::TOP, 0.0, self::HOTTEST_C, '°C'],
        ];
    }

    public function x(float $s): float
    {
        return round(self::LEFT + ((self::RIGHT - self::LEFT) * $s) / $this->seconds, 1);
    }

    public function y(float $c): float
    {
        return round(self::FOOT - ((self::FOOT - self::TOP) * max(0.0, $c)) / self::HOTTEST_C, 1);
    }

    /** @return array{list<float>, list<float>} ticks of seconds and degrees */
    public function ticks(): array
    {
        $step = $this->seconds > 600 ? 300.0 : ($this->seconds > 300 ? 120.0 : 60.0);

        return [range(0.0, $this->seconds, $step), [0.0, 40.0, 80.0, 120.0]];
    }
}
