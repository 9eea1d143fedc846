<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

/** The steps of all flights of a series, laid over each other. */
final readonly class FamilyPlot
{
    private const LEFT = 62.0;
    private const RIGHT = 720.0;
    private const TOP = 10.0;
    private const FOOT = 140.0;
    private const MS = 150.0;

    /** Drawn up to here at least, and to what the highest reaches. */
    private const LEAST_TOP = 1.6;

    /**
     * @param list<array{name: string, value: float, path: string, y: float, share: float}> $curves from the lowest value to the highest
     * @param float                                                                         $top    share of what was asked at the upper end
     */
    private function __construct(public array $curves, private float $top)
    {
    }

    /** @param list<array{name: string, value: float, step_ms: float, values: list<float>}> $steps */
    public static function of(array $steps): ?self
    {
        usort($steps, static fn (array $a, array $b): int => $a['value'] <=> $b['value']);
        $curves = [];
        $top = max([self::LEAST_TOP, ...array_map(static fn (array $one): float => 1.03 * max([0.0, ...$one['values']]), $steps)]);
        foreach ($steps as $n => $one) {
            $path = '';
            $y = self::height(1.0, $top);
            foreach ($one['values'] as $i => $v) {
                $ms = $i * $one['step_ms'];
                if ($ms > self::MS) {
                    break;
                }
                $y = self::height($v, $top);
                $path .= ('' === $path ? 'M' : 'L').self::x($ms).' '.$y;
            }
            $share = \count($steps) > 1 ? $n / (\count($steps) - 1) : 1.0;
            $curves[] = ['name' => $one['name'], 'value' => $one['value'], 'path' => $path, 'y' => $y, 'share' => $share];
        }

        return [] === $curves ? null : new self($curves, $top);
    }

    private static function x(float $ms): float
    {
        return round(self::LEFT + ((self::RIGHT - self::LEFT) * $ms) / self::MS, 1);
    }

    public function y(float $of): float
    {
        return self::height($of, $this->top);
    }

    /** @return list<float> where lines are drawn across */
    public function lines(): array
    {
        return array_values(array_filter([0.0, 0.5, 1.0, 1.5, 2.0, 2.5], fn (float $v): bool => $v <= $this->top));
    }

    private static function height(float $of, float $top): float
    {
        return round(self::FOOT - ((self::FOOT - self::TOP) * max(-0.1, $of)) / $top, 1);
    }
}
