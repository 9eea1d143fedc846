<?php

declare(strict_types=1);

namespace Ortholex\Core\Lag;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Signal\Welch;

/**
 * How long rotation comes after the command where the pilot moves the sticks: + is lag, − is lead.
 *
 * It is the shift at which the cross-correlation of the two is highest, both led through the same band-pass: from the tenth to the
 * ninth tenth of the power of the command's rate of change, which is the band of the moves. Below it a loop is late even where
 * every move is met in time, and no thumb feels it. The flight is summed second by second, without tapers, which would make what is
 * late look later still; its error is that of an estimating equation (Huber 1967), from second to second.
 *
 * @phpstan-type Second array{xy: list<float>, xx: list<float>, yy: float}
 */
final readonly class AxisLag
{
    /** Two seconds with enough motion in them are a window; they lie half over one another. */
    private const PER_WINDOW = 2;

    private const REACH_S = 0.1;
    private const LEAST_DPS = 15.0;
    private const RATE_HZ = 250.0;
    private const LEAST_CORRELATION = 0.5;

    /** No thumb moves slower or faster than this, Hz. */
    private const MOVES_HZ = [0.5, 20.0];

    private const RESOLUTION_HZ = 0.25;

    /** Share of the power of the command's rate of change that is left out at either end of the band. */
    private const LEFT_OUT = 0.1;

    /**
     * @param float               $iqrMs   range between the quartiles of single windows
     * @param float               $errorMs deviation of $ms
     * @param array{float, float} $bandHz  of the moves
     * @param float               $moveDps deviation of the command in the windows used
     */
    private function __construct(
        public float $ms,
        public float $iqrMs,
        public float $errorMs,
        public int $windows,
        public array $bandHz,
        public float $moveDps,
    ) {
    }

    /** Half of the interval that holds it nine times of ten, ms. */
    public function halfWidthMs(): float
    {
        return 1.645 * $this->errorMs;
    }

    /**
     * @param list<list<float>> $setpoint gap-free runs, deg/s
     * @param list<list<float>> $rate     of the same runs
     *
     * @return self|null null when no window tells
     */
    public static function of(array $setpoint, array $rate, float $rateHz): ?self
    {
        $factor = max(1, (int) floor($rateHz / self::RATE_HZ));
        $fs = $rateHz / $factor;
        $second = (int) round($fs);
        $reach = (int) ceil(self::REACH_S * $fs);
        $runs = [];
        foreach ($setpoint as $r => $run) {
            if (\count($run) >= $factor * (self::PER_WINDOW * $second + 2 * $reach)) {
                $runs[] = [Statistics::decimated($run, $factor), Statistics::decimated($rate[$r], $factor)];
            }
        }
        $band = [] === $runs ? null : self::band(array_column($runs, 0), $fs);
        if (null === $band) {
            return null;
        }
        $lags = $used = [];
        $square = 0.0;
        foreach ($runs as $r => [$x, $y]) {
            $seconds = self::seconds(self::passed($x, $band, $fs), self::passed($y, $band, $fs), $second, $reach);
            for ($at = 0, $last = \count($seconds) - self::PER_WINDOW; $at <= $last; ++$at) {
                $deviation = Statistics::deviation(\array_slice($x, $reach + $at * $second, self::PER_WINDOW * $second));
                $window = \array_slice($seconds, $at, self::PER_WINDOW);
                $lag = $deviation < self::LEAST_DPS ? null : self::peak($window, $reach);
                if (null === $lag) {
                    continue;
                }
                $lags[] = (1e3 * $lag) / $fs;
                $square += $deviation ** 2;
                foreach ($window as $i => $one) {
                    $used[$r][$at + $i] = $one;
                }
            }
        }
        if ([] === $lags) {
            return null;
        }
        sort($lags);
        [$samples, $error] = self::together($used, $reach) ?? [(Statistics::quantileOfSorted($lags, 0.5) * $fs) / 1e3, $reach];

        return new self(
            (1e3 * $samples) / $fs,
            Statistics::quantileOfSorted($lags, 0.75) - Statistics::quantileOfSorted($lags, 0.25),
            (1e3 * $error) / $fs,
            \count($lags),
            $band,
            sqrt($square / \count($lags)),
        );
    }

    /**
     * @param list<list<float>> $commands
     *
     * @return array{float, float}|null Hz; null where nothing changes
     */
    private static function band(array $commands, float $fs): ?array
    {
        $longest = max([0, ...array_map(\count(...), $commands)]);
        $resolution = max(self::RESOLUTION_HZ, (2 * $fs) / max(8, $longest));
        $spectrum = Welch::withResolution($resolution, $fs)->density($commands);
        $power = [];
        foreach ($spectrum->density as $k => $p) {
            $hz = $k * $spectrum->stepHz;
            if ($hz >= self::MOVES_HZ[0] && $hz <= self::MOVES_HZ[1]) {
                $power[] = [$hz, $hz * $hz * $p];
            }
        }
        $all = array_sum(array_column($power, 1));
        if ($all <= 0) {
            return null;
        }
        [$from, $to] = self::MOVES_HZ;
        $sum = 0.0;
        foreach ($power as [$hz, $p]) {
            $from = $sum <= self::LEFT_OUT * $all ? $hz : $from;
            $to = $sum < (1 - self::LEFT_OUT) * $all ? $hz : $to;
            $sum += $p;
        }

        return [$from, max($to, 2 * $from)];
    }

    /**
     * @param list<float>         $x
     * @param array{float, float} $band Hz
     *
     * @return list<float> through a first-order high-pass and a second-order low-pass
     */
    private static function passed(array $x, array $band, float $fs): array
    {
        $first = $x[0];
        $x = array_map(static fn (float $v): float => $v - $first, $x);
        foreach (FilterChain::of($fs, FilterStage::firstOrder($band[0], $fs))->run($x) as $i => $slow) {
            $x[$i] -= $slow;
        }

        return FilterChain::of($fs, FilterStage::secondOrder(min($band[1], 0.45 * $fs), $fs))->run(array_values($x));
    }

    /**
     * @param list<float> $x command
     * @param list<float> $y rate
     *
     * @return list<Second> Σ x[i − d]·y[i] and Σ x[i − d]² for d over the reach, and Σ y[i]²
     */
    private static function seconds(array $x, array $y, int $second, int $reach): array
    {
        $seconds = [];
        for ($at = $reach, $end = \count($x) - $second - $reach; $at <= $end; $at += $second) {
            $yy = 0.0;
            for ($i = $at; $i < $at + $second; ++$i) {
                $yy += $y[$i] * $y[$i];
            }
            $xy = $xx = [];
            for ($d = -$reach; $d <= $reach; ++$d) {
                $both = $one = 0.0;
                for ($i = $at; $i < $at + $second; ++$i) {
                    $v = $x[$i - $d];
                    $both += $v * $y[$i];
                    $one += $v * $v;
                }
                $xy[] = $both;
                $xx[] = $one;
            }
            $seconds[] = ['xy' => $xy, 'xx' => $xx, 'yy' => $yy];
        }

        return $seconds;
    }

    /**
     * @param list<Second> $window
     *
     * @return float|null samples; null where the rate does not follow the command
     */
    private static function peak(array $window, int $reach): ?float
    {
        [$xy, $xx, $yy] = self::sum($window);
        $best = self::highest($xy);
        if ($best <= 0 || $best >= 2 * $reach || $xy[$best] <= self::LEAST_CORRELATION * sqrt($xx[$best] * $yy)) {
            return null;
        }

        return self::top(self::fit($xy, $xx, $xy[$best] / $xx[$best])) - $reach;
    }

    /**
     * @param array<Second> $seconds
     *
     * @return array{list<float>, list<float>, float}
     */
    private static function sum(array $seconds): array
    {
        $xy = $xx = [];
        foreach ($seconds as $one) {
            foreach ($one['xy'] as $d => $v) {
                $xy[$d] = ($xy[$d] ?? 0.0) + $v;
                $xx[$d] = ($xx[$d] ?? 0.0) + $one['xx'][$d];
            }
        }

        return [array_values($xy), array_values($xx), array_sum(array_column($seconds, 'yy'))];
    }

    /**
     * How well the command, that much later, fits the rate by least squares; what stands at the ends of the stretch counts for nothing.
     *
     * @param list<float> $xy
     * @param list<float> $xx
     *
     * @return list<float>
     */
    private static function fit(array $xy, array $xx, float $gain): array
    {
        return array_map(static fn (float $both, float $one): float => $both - 0.5 * $gain * $one, $xy, $xx);
    }

    /** @param list<float> $values */
    private static function highest(array $values): int
    {
        return (int) array_search(max([-\INF, ...$values]), $values, true);
    }

    /** @param list<float> $fit with a hill in it */
    private static function top(array $fit): float
    {
        $k = max(1, min(\count($fit) - 2, self::highest($fit)));
        $curve = $fit[$k - 1] - 2 * $fit[$k] + $fit[$k + 1];

        return $k + ($curve < 0 ? (0.5 * ($fit[$k - 1] - $fit[$k + 1])) / $curve : 0.0);
    }

    /**
     * @param array<int, array<int, Second>> $used seconds of each run
     *
     * @return array{float, float}|null samples, with their deviation; null where all together have no hill
     */
    private static function together(array $used, int $reach): ?array
    {
        $seconds = array_merge(...array_values($used));
        [$xy, $xx] = self::sum($seconds);
        $best = self::highest($xy);
        if ($best <= 0 || $best >= 2 * $reach || $xx[$best] <= 0) {
            return null;
        }
        $gain = $xy[$best] / $xx[$best];
        $fit = self::fit($xy, $xx, $gain);
        $top = self::top($fit);
        $k = max(1, min(2 * $reach - 1, self::highest($fit)));
        $curve = $fit[$k - 1] - 2 * $fit[$k] + $fit[$k + 1];
        $square = 0.0;
        foreach ($seconds as $one) {
            // Slope of this second's fit at the top of all.
            $c = self::fit(\array_slice($one['xy'], $k - 1, 3), \array_slice($one['xx'], $k - 1, 3), $gain);
            $square += (0.5 * ($c[2] - $c[0]) + ($top - $k) * ($c[0] - 2 * $c[1] + $c[2])) ** 2;
        }

        return $curve < 0 ? [$top - $reach, sqrt($square) / -$curve] : null;
    }

    /** To the digits that a report carries. */
    public function rounded(): self
    {
        return new self(
            round($this->ms, 3),
            round($this->iqrMs, 3),
            round($this->errorMs, 4),
            $this->windows,
            [round($this->bandHz[0], 2), round($this->bandHz[1], 2)],
            round($this->moveDps, 1),
        );
    }

    /** @return array{ms: float, iqr_ms: float, error_ms: float, windows: int, band_hz: array{float, float}, move_dps: float} */
    public function toArray(): array
    {
        return [
            'ms' => $this->ms,
            'iqr_ms' => $this->iqrMs,
            'error_ms' => $this->errorMs,
            'windows' => $this->windows,
            'band_hz' => $this->bandHz,
            'move_dps' => $this->moveDps,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $band = $data->numbers('band_hz');

        return new self(
            $data->number('ms'),
            $data->number('iqr_ms'),
            $data->number('error_ms'),
            $data->whole('windows'),
            [$band[0] ?? 0.0, $band[1] ?? 0.0],
            $data->number('move_dps'),
        );
    }
}
