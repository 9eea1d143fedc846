<?php

declare(strict_types=1);

namespace Ortholex\Core\Video;

/**
 * How warm a video transmitter gets: T = T_air + P·R·(1 − e^(−t/τ)), a first-order body (Incropera, Fundamentals of Heat and Mass
 * Transfer, 5).
 */
final readonly class Heat
{
    /**
     * @param float $airC    around it
     * @param float $kPerW   thermal resistance to still air
     * @param float $tauS    time constant
     * @param float $limitC  at which it protects itself
     */
    private function __construct(public float $airC, public float $kPerW, public float $tauS, public float $limitC)
    {
    }

    public static function of(float $airC, float $kPerW, float $tauS, float $limitC): self
    {
        return new self($airC, $kPerW, $tauS, $limitC);
    }

    /**
     * The same body, by two readings of it on the bench.
     *
     * @param list<array{float, float}> $readings seconds since it was switched on at a power, and °C; at least three over a tenth of τ
     *
     * @return self|null null where they do not tell
     */
    public static function fitted(array $readings, float $airC, float $watts, float $limitC): ?self
    {
        $best = null;
        if (\count($readings) < 3 || $watts <= 0) {
            return null;
        }
        for ($tau = 20.0; $tau <= 900.0; $tau *= 1.05) {
            $over = $with = 0.0;
            foreach ($readings as [$t, $c]) {
                $rise = 1 - exp(-$t / $tau);
                $over += $rise * ($c - $airC);
                $with += $rise * $rise;
            }
            $k = $with > 0 ? $over / $with : 0.0;
            $left = array_sum(array_map(static fn (array $r): float => ($r[1] - $airC - $k * (1 - exp(-$r[0] / $tau))) ** 2, $readings));
            if ($k > 0 && (null === $best || $left < $best[0])) {
                $best = [$left, $k / $watts, $tau];
            }
        }

        return null === $best ? null : new self($airC, $best[1], $best[2], $limitC);
    }

    /** °C after so long at a power that becomes heat, W, begun at $fromC. */
    public function at(float $seconds, float $watts, ?float $fromC = null): float
    {
        $ends = $this->airC + $watts * $this->kPerW;

        return $ends + (($fromC ?? $this->airC) - $ends) * exp(-$seconds / $this->tauS);
    }

    /** Seconds until the limit; null where it never gets there. */
    public function untilLimit(float $watts, ?float $fromC = null): ?float
    {
        $ends = $this->airC + $watts * $this->kPerW;
        $from = $fromC ?? $this->airC;
        if ($from >= $this->limitC) {
            return 0.0;
        }

        return $ends <= $this->limitC ? null : $this->tauS * log(($ends - $from) / ($ends - $this->limitC));
    }
}
