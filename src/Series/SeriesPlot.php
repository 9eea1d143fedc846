<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Ortholex\Core\Series\AxisSeries;
use Ortholex\Core\Series\Criterion;
use Ortholex\Core\Series\SeriesPoint;

/** What a series measured, against what it varied, as a drawing. */
final readonly class SeriesPlot
{
    public const WIDTH = 820.0;
    public const HEIGHT = 270.0;
    private const LEFT = 62.0;
    private const RIGHT = 790.0;
    private const TOP = 20.0;
    private const FOOT = 226.0;

    /** Values are drawn with so much room at either end. */
    private const ROOM = 0.08;

    private float $xLow;
    private float $xHigh;
    private float $yLow;
    private float $yHigh;

    /** @param list<float> $planned values that are to be flown, too */
    public function __construct(public AxisSeries $of, array $planned)
    {
        $xs = [...array_map(static fn (SeriesPoint $p): float => $p->value, $of->points), ...$planned];
        $ys = [0.0];
        foreach ($of->points as $p) {
            if (null !== $p->figure) {
                array_push($ys, $p->figure + (float) $p->off, Criterion::Lag === $of->by ? $p->figure - (float) $p->off : 0.0);
            }
        }
        [$low, $high] = [min([\INF, ...$xs]), max([-\INF, ...$xs])];
        $room = max(1e-6, self::ROOM * ($high - $low));
        [$this->xLow, $this->xHigh] = [$low - $room, $high + $room];
        $room = max(0.1, 0.12 * (max($ys) - min($ys)));
        [$this->yLow, $this->yHigh] = [min($ys) < 0 ? min($ys) - $room : 0.0, max($ys) + $room];
    }

    public function x(float $value): float
    {
        $share = ($value - $this->xLow) / max(1e-9, $this->xHigh - $this->xLow);

        return round(self::LEFT + (self::RIGHT - self::LEFT) * max(0.0, min(1.0, $share)), 1);
    }

    public function y(float $figure): float
    {
        return round(self::FOOT - ((self::FOOT - self::TOP) * ($figure - $this->yLow)) / ($this->yHigh - $this->yLow), 1);
    }

    /** @return list<float> */
    public function rows(): array
    {
        $span = $this->yHigh - $this->yLow;
        $step = 10 ** floor(log10($span / 2));
        $step *= $span / $step > 8 ? 2 : 1;
        $rows = [];
        for ($v = ceil($this->yLow / $step) * $step; $v <= $this->yHigh; $v += $step) {
            // Nought has no sign.
            $rows[] = round($v, 4) + 0.0;
        }

        return $rows;
    }

    /** The line that lag follows, where it was told. */
    public function line(): string
    {
        $lag = $this->of->lag;
        if (null === $lag || null === $lag->crossing) {
            return '';
        }
        $counted = array_values(array_filter($this->of->points, static fn (SeriesPoint $p): bool => $p->counts()));
        usort($counted, static fn (SeriesPoint $a, SeriesPoint $b): int => $a->value <=> $b->value);

        return implode('', array_map(
            fn (SeriesPoint $p, int $i): string => (0 === $i ? 'M' : 'L').$this->x($p->value).' '.$this->y((float) $p->figure),
            $counted,
            array_keys($counted),
        ));
    }
}
