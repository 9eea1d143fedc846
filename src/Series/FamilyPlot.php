<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

/** The steps of all flights of a series, laid over each other. */
final readonly class FamilyPlot
{
    private const LEFT = 62.0;
    private const RIGHT = 720.0;
    private const TOP = 10.0;
    public const FOOT = 140.0;
    private const MS = 150.0;
    private const MOST = 1.6;

    /** @param list<array{name: string, value: float, path: string, y: float, share: float}> $curves from the lowest value to the highest */
    private function __construct(public array $curves)
    {
    }

    /** @param list<array{name: string, value: float, step_ms: float, values: list<float>}> $steps */
    public static function of(array $steps): ?self
    {
        usort($steps, static fn (array $a, array $b): int => $a['value'] <=> $b['value']);
        $curves = [];
        foreach ($steps as $n => $one) {
            $path = '';
            $y = self::y(1.0);
            foreach ($one['values'] as $i => $v) {
                $ms = $i * $one['step_ms'];
                if ($ms > self::MS) {
                    break;
                }
                $y = self::y($v);
                $path .= ('' === $path ? 'M' : 'L').self::x($ms).' '.$y;
            }
            $share = \count($steps) > 1 ? $n / (\count($steps) - 1) : 1.0;
            $curves[] = ['name' => $one['name'], 'value' => $one['value'], 'path' => $path, 'y' => $y, 'share' => $share];
        }

        return [] === $curves ? null : new self($curves);
    }

    public static function x(float $ms): float
    {
        return round(self::LEFT + ((self::RIGHT - self::LEFT) * $ms) / self::MS, 1);
    }

    public static function y(float $of): float
    {
        return round(self::FOOT - ((self::FOOT - self::TOP) * max(-0.1, min(self::MOST, $of))) / self::MOST, 1);
    }
}
