<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

/**
 * A run in blocks of a hundredth of a second: how the rates changed over each, and what stood meanwhile. Change over a block needs
 * no derivative of a noisy trace. Rates and thrusts are smoothed alike before, which leaves what relates them as it is, so that
 * what shakes the frame is not taken for motion.
 */
final readonly class Blocks
{
    private const BLOCK_S = 0.01;

    /** Two means over this, one after the other. */
    private const SMOOTH_S = 0.016;

    /**
     * @param int               $size  steps of the run in a block
     * @param list<list<float>> $accel by axis, deg/s²
     * @param list<list<float>> $rate  by axis, deg/s
     * @param list<list<float>> $asked what the pilot asked at the beginning of each block: by axis, deg/s, then throttle, %; what was not
     *                                 logged is left out
     * @param list<bool>        $teaches whether a block says what a whole craft does
     */
    private function __construct(
        public FlightRun $run,
        public int $size,
        public array $accel,
        public array $rate,
        public array $asked,
        public array $teaches,
    ) {
    }

    public static function of(FlightRun $run): self
    {
        $size = max(1, (int) round(self::BLOCK_S / $run->stepS));
        $count = intdiv(max(0, $run->count() - 2), $size);
        $accel = $rate = [];
        foreach ($run->rate as $raw) {
            $w = self::smooth($raw, $run->stepS);
            $edges = [];
            for ($b = 0; $b <= $count; ++$b) {
                $i = $b * $size;
                $edges[] = $w[$i];
            }
            $a = $mid = [];
            for ($b = 0; $b < $count; ++$b) {
                $a[] = ($edges[$b + 1] - $edges[$b]) / ($size * $run->stepS);
                $mid[] = ($edges[$b + 1] + $edges[$b]) / 2;
            }
            $accel[] = $a;
            $rate[] = $mid;
        }

        $asked = [];
        foreach ([...$run->set, $run->throttle] as $raw) {
            if ([] === $raw) {
                continue;
            }
            $smooth = self::smooth($raw, $run->stepS);
            $at = [];
            for ($b = 0; $b < $count; ++$b) {
                $at[] = $smooth[$b * $size];
            }
            $asked[] = $at;
        }

        return new self($run, $size, $accel, $rate, $asked, array_fill(0, $count, true));
    }

    /**
     * The same, with stretches that teach nothing.
     *
     * @param list<array{int, int}> $stretches first and last step
     */
    public function without(array $stretches): self
    {
        $teaches = $this->teaches;
        foreach ($stretches as [$from, $to]) {
            for ($b = max(0, intdiv($from, $this->size)), $end = min($this->count() - 1, intdiv($to, $this->size)); $b <= $end; ++$b) {
                $teaches[$b] = false;
            }
        }

        return new self($this->run, $this->size, $this->accel, $this->rate, $this->asked, array_values($teaches));
    }

    /** How many blocks teach. */
    public function teaching(): int
    {
        return \count(array_filter($this->teaches));
    }

    public function count(): int
    {
        return \count($this->accel[0]);
    }

    public function seconds(): float
    {
        return $this->size * $this->run->stepS;
    }

    public function blocks(float $seconds): int
    {
        return max(1, (int) round($seconds / $this->seconds()));
    }

    /**
     * Thrust of each motor by a law of its speed, over that at full output, and how its speed changes.
     *
     * @param int $from first block
     *
     * @return array{list<list<float>>, list<list<float>>} by motor and block: thrust; change of speed, 1/s
     */
    public function thrust(RotorLaw $law, int $from = 0, ?int $count = null): array
    {
        $count ??= $this->count() - $from;
        // A little before, so that the lags have settled.
        $lead = min($from * $this->size, 40 * $this->size);
        $first = $from * $this->size - $lead;
        $length = $lead + $count * $this->size;
        $supply = \array_slice($this->run->supply(), $first, $length);
        $thrust = $change = [];
        foreach ($this->run->outputs as $output) {
            $speeds = $law->speeds(\array_slice($output, $first, $length), $supply, $this->run->stepS);
            $push = $speeds;
            for ($i = 0, $n = \count($push); $i < $n; ++$i) {
                $push[$i] *= $push[$i];
            }
            $push = self::smooth(array_values($push), $this->run->stepS);
            $speeds = self::smooth($speeds, $this->run->stepS);
            $t = $d = [];
            for ($i = $lead, $size = $this->size, $end = $lead + $count * $size; $i < $end; $i += $size) {
                $sum = 0.0;
                for ($j = 0; $j < $size; ++$j) {
                    $sum += $push[$i + $j];
                }
                $t[] = $sum / $size;
                $d[] = (($speeds[$i + $size] ?? $speeds[$i + $size - 1]) - $speeds[$i]) / ($size * $this->run->stepS);
            }
            $thrust[] = $t;
            $change[] = $d;
        }

        return [$thrust, $change];
    }

    /**
     * @param list<float> $v
     *
     * @return list<float> each the mean of those around it, twice
     */
    private static function smooth(array $v, float $stepS): array
    {
        $half = (int) round(self::SMOOTH_S / 2 / $stepS);
        for ($time = 0; $time < 2 && $half > 0; ++$time) {
            $n = \count($v);
            // Written over, as a list that grows takes longer.
            $out = $v;
            $sum = 0.0;
            for ($i = 0, $end = min($half, $n); $i < $end; ++$i) {
                $sum += $v[$i];
            }
            // At the beginning there are fewer; at the end the last stands for what would come.
            for ($i = 0, $end = min($half + 1, $n); $i < $end; ++$i) {
                $sum += $v[$i + $half] ?? $v[$n - 1];
                $out[$i] = $sum / ($i + $half + 1);
            }
            $share = 1 / (2 * $half + 1);
            for ($next = $i + $half, $gone = $i - $half - 1; $next < $n; ++$next, ++$gone, ++$i) {
                $sum += $v[$next] - $v[$gone];
                $out[$i] = $sum * $share;
            }
            for (; $i < $n; ++$i) {
                $sum += $v[$n - 1] - $v[$i - $half - 1];
                $out[$i] = $sum * $share;
            }
            $v = $out;
        }

        return array_values($v);
    }
}
