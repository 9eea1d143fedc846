<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Lag\LagSeries;
use Ortholex\Core\Settings\Setting;

/** The flights of a series held against each other: what confounds them, how they rank, what they propose. */
final readonly class SeriesResult
{
    /** What else of a craft changes how it flies. */
    private const MATTERS = '~^(gain|rate_path|d_path|notch|command_low_pass|feel|motors|props|frame|throttle)\.~';

    /** Flights of the same value that may differ by so many of their errors without anything having drifted. */
    private const DRIFTS = 1.6;

    /** @param array<string, AxisSeries> $axes */
    private function __construct(public array $axes)
    {
    }

    /**
     * @param list<string>       $varied settings
     * @param list<SeriesFlight> $flights in the order flown
     * @param list<Axis>|null    $axes   of which it is told; those that the settings belong to when null
     */
    public static function of(array $varied, array $flights, ?Criterion $by = null, ?array $axes = null): self
    {
        $by ??= Criterion::for($varied[0] ?? '');
        $out = [];
        foreach ($axes ?? self::touched($varied) as $axis) {
            $points = self::points($varied, $flights, $by, $axis);
            if ([] !== array_filter($points, static fn (SeriesPoint $p): bool => $p->counts())) {
                $out[$axis->value] = self::ranked($by, $points, $flights, $axis);
            }
        }

        return new self($out);
    }

    /** The axis on which the flights differ most, by the share of the least; null where none tells. */
    public function mostTelling(): ?Axis
    {
        $most = null;
        foreach ($this->axes as $axis => $series) {
            $figures = array_column(array_filter($series->points, static fn (SeriesPoint $p): bool => $p->counts()), 'figure');
            $spread = [] === $figures ? 0.0 : max($figures) / max(1e-9, min($figures));
            if (null === $most || $spread > $most[1]) {
                $most = [Axis::from($axis), $spread];
            }
        }

        return $most[0] ?? null;
    }

    /**
     * @param list<string> $varied
     *
     * @return list<Axis>
     */
    public static function touched(array $varied): array
    {
        $axes = [];
        foreach ($varied as $name) {
            if (1 !== preg_match('~\.(roll|pitch|yaw)\.~', $name, $m)) {
                return Axis::cases();
            }
            $axes[$m[1]] = Axis::from($m[1]);
        }

        return array_values($axes);
    }

    /**
     * @param list<string>       $varied
     * @param list<SeriesFlight> $flights
     *
     * @return list<SeriesPoint>
     */
    private static function points(array $varied, array $flights, Criterion $by, Axis $axis): array
    {
        $points = [];
        foreach ($flights as $flight) {
            $figure = $flight->figure($by, $axis);
            $differs = self::differs($varied, $flights[0]->settings, $flight->settings);
            $points[] = new SeriesPoint($flight->value, $flight->name, $figure[0] ?? null, $figure[1] ?? null, $differs, $flight->hot);
        }

        return $points;
    }

    /**
     * @param list<string> $varied
     *
     * @return list<string> names of what was otherwise
     */
    public static function differs(array $varied, SettingSet $first, SettingSet $other): array
    {
        $names = [];
        foreach ($first as $name => $value) {
            if (1 === preg_match(self::MATTERS, $name) && !\in_array($name, $varied, true) && $other->has($name)) {
                if (!Setting::same($value, $other[$name])) {
                    $names[] = $name;
                }
            }
        }

        return $names;
    }

    /**
     * @param list<SeriesPoint>  $points
     * @param list<SeriesFlight> $flights
     */
    private static function ranked(Criterion $by, array $points, array $flights, Axis $axis): AxisSeries
    {
        $cost = static fn (SeriesPoint $p): float => self::cost($by, (float) $p->figure);
        $best = null;
        foreach ($points as $i => $point) {
            if ($point->counts() && (null === $best || $cost($point) < $cost($points[$best]))) {
                $best = $i;
            }
        }
        $lag = Criterion::Lag === $by ? self::lag($points, $flights, $axis) : null;
        $marked = [];
        $ties = [];
        foreach ($points as $point) {
            $isBest = null !== $best && $point->counts()
                && $cost($point) - $cost($points[$best]) <= (float) $point->off + (float) $points[$best]->off;
            if ($isBest) {
                $ties[] = $point->value;
            }
            $marked[] = new SeriesPoint(
                $point->value,
                $point->name,
                $point->figure,
                $point->off,
                $point->differs,
                $point->hot,
                $isBest,
            );
        }
        $ties = [] === $ties ? [0.0] : $ties;
        $beyond = Criterion::Lag === $by ? self::beyond($marked, $lag?->crossing) : null;
        $proposal = match (true) {
            null === $beyond && null !== $lag && null !== $lag->recommended && null !== $lag->crossing => [
                $lag->recommended,
                $lag->crossing[1],
                $lag->crossing[2],
            ],
            null === $best, null !== $lag && null === $lag->recommended => null,
            default => [$points[$best]->value, min($ties), max($ties)],
        };

        $next = $beyond ?? self::next($marked, $proposal);

        return new AxisSeries($by, $marked, $proposal, self::drift($points), $next, $lag, null !== $beyond);
    }

    /** What is least is best; of lag, the least that is not below nothing. */
    private static function cost(Criterion $by, float $figure): float
    {
        return Criterion::Lag === $by ? ($figure < 0 ? 4 * -$figure : $figure) : $figure;
    }

    /**
     * @param list<SeriesPoint>  $points
     * @param list<SeriesFlight> $flights
     */
    private static function lag(array $points, array $flights, Axis $axis): ?LagSeries
    {
        $lags = [];
        foreach ($points as $i => $point) {
            $lag = $flights[$i]->report->lags[$axis->value] ?? null;
            if ($point->counts() && null !== $lag) {
                $lags[] = ['value' => $point->value, 'lag' => $lag];
            }
        }

        return LagSeries::of($lags);
    }

    /**
     * Where all of them lag, and a crossing, if the line tells one, is further than any was flown: a step further.
     *
     * @param list<SeriesPoint>               $points
     * @param array{float, float, float}|null $crossing value, low and high
     */
    private static function beyond(array $points, ?array $crossing): ?float
    {
        $values = [];
        foreach ($points as $point) {
            if ($point->counts()) {
                if ((float) $point->figure <= (float) $point->off) {
                    return null;
                }
                $values[] = $point->value;
            }
        }
        $values = array_values(array_unique($values));
        sort($values);
        $last = \count($values) - 1;

        if ($last < 1 || (null !== $crossing && $crossing[0] <= $values[$last])) {
            return null;
        }

        return round(2 * $values[$last] - $values[$last - 1], 3);
    }

    /** @param list<SeriesPoint> $points */
    private static function drift(array $points): ?float
    {
        $counted = array_values(array_filter($points, static fn (SeriesPoint $p): bool => $p->counts()));
        $last = \count($counted) - 1;
        if ($last < 1 || !SeriesPlan::same($counted[0]->value, $counted[$last]->value)) {
            return null;
        }
        $by = (float) $counted[$last]->figure - (float) $counted[0]->figure;
        $may = hypot((float) $counted[0]->off, (float) $counted[$last]->off);

        return abs($by) > self::DRIFTS * $may ? $by : null;
    }

    /**
     * Midway between the best and the neighbour that leaves most open.
     *
     * @param list<SeriesPoint>               $points
     * @param array{float, float, float}|null $proposal
     */
    private static function next(array $points, ?array $proposal): ?float
    {
        $values = [];
        foreach ($points as $point) {
            if ($point->counts()) {
                $values[(string) $point->value] = $point->value;
            }
        }
        $values = array_values($values);
        sort($values);
        if (null === $proposal || \count($values) < 2) {
            return null;
        }
        $widest = null;
        foreach ($values as $i => $value) {
            $gap = isset($values[$i + 1]) && $values[$i + 1] >= $proposal[1] && $value <= $proposal[2] ? $values[$i + 1] - $value : 0.0;
            if ($gap > 0 && (null === $widest || $gap > $widest[1])) {
                $widest = [($value + $values[$i + 1]) / 2, $gap];
            }
        }

        return null === $widest ? null : round($widest[0], 3);
    }
}
