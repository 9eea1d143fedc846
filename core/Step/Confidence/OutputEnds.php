<?php

declare(strict_types=1);

namespace Ortholex\Core\Step\Confidence;

use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\OutputTop;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\Step\StepOfSize;
use Ortholex\Core\Step\StepResult;

/** When outputs stood at their ends, over a whole flight; counted once for all axes and all who ask. */
final readonly class OutputEnds
{
    /** Of the highest that is ever sent. */
    private const FULL = 0.99;

    /** Over the lowest output of the flight; outputs that never come lower than the second have no floor that counts. */
    private const FLOOR_PCT = 0.3;

    private const HIGHEST_FLOOR_PCT = 15.0;

    /** A window counts as one at the ends from this share of its time on. */
    private const MUCH = 0.1;

    /** So many samples a second are looked at. */
    private const LOOKED_AT_HZ = 250.0;

    /**
     * @param float           $full     share of the flight with an output at its upper end; at the lower one every landing stands
     * @param list<Segment>   $segments
     * @param list<list<int>> $held     by segment, sample by sample that is looked at: how many before it stood at an end
     * @param float           $hz       samples looked at a second
     */
    private function __construct(public float $full, private array $segments, private array $held, private float $hz)
    {
    }

    /** @return self|null null where no outputs were logged */
    public static function of(FlightLog $log): ?self
    {
        $every = max(1, (int) round($log->clock->rateHz / self::LOOKED_AT_HZ));
        $columns = array_map(static fn (string $place): Column => $log->column("output_{$place}_pct"), $log->places());
        if ([] === $columns) {
            return null;
        }
        $least = $most = [];
        $floor = 100.0;
        foreach ($log->clock->segments as $segment) {
            $lows = $highs = $columns[0]->each($every, $segment->first, $segment->count);
            foreach (\array_slice($columns, 1) as $column) {
                foreach ($column->each($every, $segment->first, $segment->count) as $k => $v) {
                    if ($v < $lows[$k]) {
                        $lows[$k] = $v;
                    }
                    if ($v > $highs[$k]) {
                        $highs[$k] = $v;
                    }
                }
            }
            $floor = [] === $lows ? $floor : min($floor, min($lows));
            $least[] = $lows;
            $most[] = $highs;
        }
        $floor = $floor > self::HIGHEST_FLOOR_PCT ? -\INF : $floor + self::FLOOR_PCT;
        $end = self::FULL * OutputTop::of($most);
        $held = [];
        $full = $looked = 0;
        foreach ($least as $s => $lows) {
            $sum = 0;
            $before = [0];
            foreach ($lows as $k => $low) {
                $high = $most[$s][$k] ?? $low;
                $full += $high >= $end ? 1 : 0;
                $sum += $high >= $end || $low <= $floor ? 1 : 0;
                $before[] = $sum;
                ++$looked;
            }
            $held[] = $before;
        }

        return new self($full / max(1, $looked), $log->clock->segments, $held, $log->clock->rateHz / $every);
    }

    public function over(StepResult $step): AtEnds
    {
        $held = $looked = 0;
        $windows = $much = [];
        foreach ($step->windows as $window) {
            if (null !== $window->why) {
                continue;
            }
            [$h, $n] = $this->within($window->atS, $step->windowS);
            $held += $h;
            $looked += $n;
            $size = self::sizeOf($window->sizeDps, $step->bySize);
            $windows[$size] = ($windows[$size] ?? 0) + 1;
            $much[$size] = ($much[$size] ?? 0) + ($h > self::MUCH * $n ? 1 : 0);
        }
        $bySize = [];
        foreach ($windows as $size => $count) {
            $bySize[$size] = $much[$size] / $count;
        }

        return new AtEnds($looked > 0 ? $held / $looked : 0.0, $bySize);
    }

    /** @return array{int, int} samples at an end, and samples looked at */
    private function within(float $atS, float $lengthS): array
    {
        foreach ($this->segments as $s => $segment) {
            $last = \count($this->held[$s]) - 1;
            $from = (int) round(($atS - $segment->startS) * $this->hz);
            if ($from >= 0 && $from < $last) {
                $to = min($last, $from + (int) ($lengthS * $this->hz));

                return [$this->held[$s][$to] - $this->held[$s][$from], $to - $from];
            }
        }

        return [0, 0];
    }

    /** @param array<string, StepOfSize> $sizes */
    private static function sizeOf(float $dps, array $sizes): string
    {
        foreach ($sizes as $name => $size) {
            if ($dps <= $size->uptoDps) {
                return $name;
            }
        }

        return 'large';
    }
}
