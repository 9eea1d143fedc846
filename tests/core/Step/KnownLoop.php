<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Step;

use Ortholex\Tests\core\Lcg;

/** A second-order loop whose step is known in closed form, driven by a stick; shares nothing with the analysis. */
final readonly class KnownLoop
{
    public function __construct(public float $natural, public float $damping, public float $deadS)
    {
    }

    /** Unit step at time t (Ogata, Modern Control Engineering, ch. 5). */
    public function step(float $t): float
    {
        $t -= $this->deadS;
        if ($t <= 0) {
            return 0.0;
        }
        [$w, $z] = [$this->natural, $this->damping];
        if ($z < 1) {
            $wd = $w * sqrt(1 - $z * $z);

            return 1 - exp(-$z * $w * $t) * (cos($wd * $t) + ($z / sqrt(1 - $z * $z)) * sin($wd * $t));
        }
        $r = sqrt($z * $z - 1);
        $a = $w * ($z - $r);
        $b = $w * ($z + $r);

        return 1 - ($b * exp(-$a * $t) - $a * exp(-$b * $t)) / ($b - $a);
    }

    /** Seconds until half of the final value. */
    public function delayS(): float
    {
        $low = 0.0;
        $high = 1.0;
        for ($i = 0; $i < 60; ++$i) {
            $mid = ($low + $high) / 2;
            $this->step($mid) < 0.5 ? ($low = $mid) : ($high = $mid);
        }

        return $low;
    }

    public function peak(): float
    {
        return $this->damping < 1 ? 1 + exp((-\M_PI * $this->damping) / sqrt(1 - $this->damping ** 2)) : 1.0;
    }

    /**
     * A stick moved to random places, and the loop's answer with noise.
     *
     * @return array{list<float>, list<float>} setpoint and rate, deg/s
     */
    public function fly(float $rateHz, float $seconds, float $snrDb, int $seed): array
    {
        $dice = new Lcg($seed);
        $fine = max(8, (int) round(20000 / $rateHz));
        $h = 1 / $rateHz / $fine;
        $x = $y = [];
        $line = array_fill(0, max(1, (int) round($this->deadS / $h)), 0.0);
        $place = 0;
        $goal = $slow = $smooth = $p = $v = 0.0;
        $until = 0.0;
        for ($i = 0, $n = (int) ($rateHz * $seconds); $i < $n; ++$i) {
            $x[] = $smooth;
            $y[] = $p;
            for ($j = 0; $j < $fine; ++$j) {
                $t = ($i + $j / $fine) / $rateHz;
                if ($t >= $until) {
                    $goal = 800 * $dice->next();
                    $until = $t + 0.25 + 0.3 * ($dice->next() + 0.5);
                }
                $slow += (($goal - $slow) * $h) / 0.02;
                $smooth += (($slow - $smooth) * $h) / 0.02;
                $late = $this->deadS > 0 ? $line[$place] : $smooth;
                $line[$place] = $smooth;
                $place = ($place + 1) % \count($line);
                $v += $h * ($this->natural ** 2 * ($late - $p) - 2 * $this->damping * $this->natural * $v);
                $p += $h * $v;
            }
        }
        $rms = sqrt(array_sum(array_map(static fn (float $q): float => $q * $q, $y)) / \count($y));
        foreach ($y as $i => $q) {
            $y[$i] = $q + $rms * 10 ** (-$snrDb / 20) * $dice->normal();
        }

        return [$x, $y];
    }
}
