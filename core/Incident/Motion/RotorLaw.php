<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

use Ortholex\Core\Signal\Statistics;

/**
 * How fast a rotor turns for what its output asks: it goes towards full · supply · output^power, upwards with one time constant,
 * downwards with another, some time after the output. As a share of its speed at full output.
 *
 * Where speeds were logged the law is fitted to them; else to how the craft turns (CraftModel). Both by going through one
 * parameter after the other, the others held (coordinate descent).
 */
final readonly class RotorLaw
{
    private const POWERS = [0.5, 0.65, 0.8, 1.0];
    private const LAGS_S = [0.006, 0.01, 0.016, 0.025, 0.04, 0.06, 0.09, 0.13];
    private const SLOWER_DOWN = [1.0, 1.5, 2.2];
    private const DELAYS_S = [0.0, 0.002, 0.005, 0.009, 0.015, 0.03];

    /** Rounds of the descent. */
    private const ROUNDS = 2;

    /** Speeds are held against the law on so many steps, every so manieth of them. */
    private const PART = 3000;

    private const STRIDE = 11;

    public function __construct(public float $power, public float $upS, public float $downS, public float $delayS)
    {
    }

    public static function first(): self
    {
        return new self(0.8, 0.025, 0.025, 0.002);
    }

    /**
     * The law for which something is least.
     *
     * @param callable(self): float $cost
     */
    public static function best(callable $cost): self
    {
        $best = self::first();
        $least = $cost($best);
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $before = $best;
            foreach (self::neighbours() as $candidates) {
                foreach ($candidates($best) as $law) {
                    $c = $law == $best ? $least : $cost($law);
                    if ($c < $least) {
                        $least = $c;
                        $best = $law;
                    }
                }
            }
            if ($best === $before) {
                break;
            }
        }

        return $best;
    }

    /**
     * Of speeds as logged; null where none are.
     *
     * @param list<FlightRun> $runs
     */
    public static function ofSpeeds(array $runs): ?self
    {
        $run = self::longest($runs);
        $logged = null === $run ? [] : array_filter(array_keys($run->outputs), $run->hasRpm(...));
        if (null === $run || [] === $logged) {
            return null;
        }
        $from = max(0, intdiv($run->count() - self::PART, 2));
        $supply = \array_slice($run->supply(), $from, self::PART);
        $pairs = [];
        foreach ($logged as $m) {
            $pairs[] = [\array_slice($run->outputs[$m], $from, self::PART), \array_slice($run->rpm($m) ?? [], $from, self::PART)];
        }

        $targets = [];

        return self::best(static function (self $law) use ($pairs, $supply, $run, &$targets): float {
            $sum = 0.0;
            // Most laws that are tried differ in their lags alone.
            $same = "{$law->power} {$law->delayS}";
            foreach ($pairs as $m => [$output, $rpm]) {
                $targets[$same][$m] ??= $law->targets($output, $supply, $run->stepS);
                $sum += self::misfit($law->towards($targets[$same][$m], $run->stepS), $rpm);
            }

            return $sum;
        });
    }

    /**
     * @param list<float> $output %
     * @param list<float> $supply over the usual; empty for always the usual
     *
     * @return list<float> speed over that at full output and usual supply, step by step
     */
    public function speeds(array $output, array $supply, float $stepS): array
    {
        return $this->towards($this->targets($output, $supply, $stepS), $stepS);
    }

    /**
     * @param list<float> $output %
     * @param list<float> $supply over the usual; empty for always the usual
     *
     * @return list<float> speed that each step asks for, over that at full output and usual supply
     */
    public function targets(array $output, array $supply, float $stepS): array
    {
        [$table, $late] = [$this->table(), (int) round($this->delayS / $stepS)];
        $out = $output;
        for ($i = 0, $n = \count($output); $i < $n; ++$i) {
            $pct = $output[$i < $late ? 0 : $i - $late];
            $out[$i] = ($pct <= 0.0 ? 0.0 : ($pct >= 100.0 ? 1.0 : $table[(int) (10 * $pct + 0.5)])) * ($supply[$i] ?? 1.0);
        }

        return array_values($out);
    }

    /**
     * @param list<float> $targets speed that each step asks for
     *
     * @return list<float> speed, step by step
     */
    public function towards(array $targets, float $stepS): array
    {
        $up = 1 - exp(-$stepS / $this->upS);
        $down = 1 - exp(-$stepS / $this->downS);
        $speed = $targets[0] ?? 0.0;
        for ($i = 0, $n = \count($targets); $i < $n; ++$i) {
            $off = $targets[$i] - $speed;
            $speed += ($off > 0 ? $up : $down) * $off;
            $targets[$i] = $speed;
        }

        return array_values($targets);
    }

    /** @return list<float> speed that each tenth of a percent of output asks for */
    private function table(): array
    {
        $table = [];
        for ($i = 0; $i <= 1000; ++$i) {
            $table[] = ($i / 1000) ** $this->power;
        }

        return $table;
    }

    /**
     * @param list<float> $speed by the law
     * @param list<float> $rpm   as logged
     *
     * @return float how far they lie apart as usual, over the usual speed
     */
    public static function misfit(array $speed, array $rpm): float
    {
        $scale = self::scale($speed, $rpm);
        if (null === $scale) {
            return 1.0;
        }
        $off = $all = [];
        for ($i = 0, $n = \count($speed); $i < $n; $i += self::STRIDE) {
            $off[] = abs($rpm[$i] - $scale * $speed[$i]);
            $all[] = $rpm[$i];
        }
        $usual = Statistics::median($all);

        return $usual > 0 ? (Statistics::median($off) + 0.5 * Statistics::quantile($off, 0.8)) / $usual : 1.0;
    }

    /**
     * @param list<float> $speed by the law
     * @param list<float> $rpm   as logged
     *
     * @return float|null rpm at full output: the median, so that a motor lost for less than half of the time does not count
     */
    public static function scale(array $speed, array $rpm): ?float
    {
        $ratios = [];
        for ($i = 0, $n = \count($speed); $i < $n; $i += self::STRIDE) {
            if ($speed[$i] > 0.05 && $rpm[$i] > 0) {
                $ratios[] = $rpm[$i] / $speed[$i];
            }
        }

        return \count($ratios) < 20 ? null : Statistics::median($ratios);
    }

    /** @param list<FlightRun> $runs */
    public static function longest(array $runs): ?FlightRun
    {
        $longest = null;
        foreach ($runs as $run) {
            $longest = null === $longest || $run->count() > $longest->count() ? $run : $longest;
        }

        return $longest;
    }

    /** @return list<callable(self): list<self>> */
    private static function neighbours(): array
    {
        return [
            static function (self $l): array {
                $laws = [];
                foreach (self::LAGS_S as $up) {
                    foreach (self::SLOWER_DOWN as $slower) {
                        $laws[] = new self($l->power, $up, $up * $slower, $l->delayS);
                    }
                }

                return $laws;
            },
            static fn (self $l): array => array_map(
                static fn (float $d): self => new self($l->power, $l->upS, $l->downS, $d),
                self::DELAYS_S,
            ),
            static fn (self $l): array => array_map(
                static fn (float $p): self => new self($p, $l->upS, $l->downS, $l->delayS),
                self::POWERS,
            ),
        ];
    }
}
