<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/**
 * From commanded roll, pitch, yaw and throttle to motor outputs, all in %.
 *
 * Saturation: with air mode the throttle is shifted first; without, it is never raised; then yaw is scaled down, then
 * roll and pitch together.
 */
final readonly class Allocation
{
    public function __construct(private Mixer $mixer, private float $idlePct, private bool $airMode)
    {
    }

    /** @return list<float> one output per motor, idle to 100 % */
    public function outputs(float $roll, float $pitch, float $yaw, float $throttle): array
    {
        $base = $this->idlePct + ($throttle * (100.0 - $this->idlePct)) / 100;
        $lean = $turn = [];
        foreach ($this->mixer->shares as [$r, $p, $y]) {
            $lean[] = $r * $roll + $p * $pitch;
            $turn[] = $y * $yaw;
        }
        $yawShare = self::largest(fn (float $k): bool => $this->fits(self::sum($lean, 1.0, $turn, $k), $base));
        $leanShare = 0.0 === $yawShare ? self::largest(fn (float $k): bool => $this->fits(self::sum($lean, $k, $turn, 0.0), $base)) : 1.0;
        $want = self::sum($lean, $leanShare, $turn, $yawShare);
        [$least, $most] = $this->levels($want);
        $level = min($most, $this->airMode ? max($least, $base) : $base);
        $outputs = [];
        foreach ($this->mixer->lift as $i => $lift) {
            $outputs[] = max($this->idlePct, min(100.0, $level * $lift + $want[$i]));
        }

        return $outputs;
    }

    /** @param list<float> $want */
    private function fits(array $want, float $base): bool
    {
        [$least, $most] = $this->levels($want);

        return $least <= $most + 1e-9 && ($this->airMode || $base >= $least - 1e-9);
    }

    /**
     * The lowest and highest level at which every motor stays between idle and full.
     *
     * @param list<float> $want what each motor is to differ from its share of the level
     *
     * @return array{float, float}
     */
    private function levels(array $want): array
    {
        $least = -\INF;
        $most = \INF;
        foreach ($this->mixer->lift as $i => $lift) {
            $least = max($least, ($this->idlePct - $want[$i]) / $lift);
            $most = min($most, (100.0 - $want[$i]) / $lift);
        }

        return [$least, $most];
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     *
     * @return list<float>
     */
    private static function sum(array $a, float $p, array $b, float $q): array
    {
        return array_map(static fn (float $x, float $y): float => $p * $x + $q * $y, $a, $b);
    }

    /**
     * Largest share from 0 to 1 that fits.
     *
     * @param \Closure(float): bool $fits true at small shares, false from some share on
     */
    private static function largest(\Closure $fits): float
    {
        if ($fits(1.0)) {
            return 1.0;
        }
        $low = 0.0;
        $high = 1.0;
        for ($i = 0; $i < 50; ++$i) {
            $mid = ($low + $high) / 2;
            $fits($mid) ? ($low = $mid) : ($high = $mid);
        }

        return $low < 1e-9 ? 0.0 : $low;
    }
}
