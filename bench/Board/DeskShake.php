<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Sensors\Gyro;
use Ortholex\Bench\Flight\Sensors\Noise;

/**
 * What a gyro feels of motors that turn on a desk, props off: the shafts, out of balance as they are, through the craft on its feet and
 * the resonances of its frame.
 */
final readonly class DeskShake
{
    /** Shake of a bare motor at six per cent, deg/s; a body on its feet turns in proportion to the speed that shakes it. */
    private const AT_SIX_DPS = 0.3;

    private const SIX = 0.06;

    /** @param list<string> $faults */
    public function __construct(private CraftPhysics $craft, private array $faults)
    {
    }

    /**
     * @param array<int, float> $hz   turns a second, by motor of the frame; none for one that stands
     * @param int               $axis 0 roll, 1 pitch, 2 yaw
     * @param int               $count even
     *
     * @return list<float> deg/s
     */
    public function samples(array $hz, int $axis, int $count, float $rateHz, int $seed): array
    {
        $mean = array_sum($this->craft->imbalance) / max(1, \count($this->craft->imbalance));
        $random = (new Noise($seed))->block(2 * $count);
        $shafts = [];
        foreach ($hz as $i => $f) {
            $a = (self::AT_SIX_DPS * $this->craft->imbalance[$i] / $mean) * ((60 * $f) / $this->craft->maxRpm / self::SIX);
            $shafts[] = [2 * \M_PI * $f / $rateHz, $a / (1 + ($f / Gyro::SOFT_HZ) ** 2), 1.3 * $axis + 2.1 * $i + $seed];
        }
        $bodies = [];
        foreach ([...$this->craft->resonances, ...\in_array('loose_arm', $this->faults, true) ? Gyro::LOOSE_ARM : []] as $r) {
            if ($r['axis'] === $axis) {
                $w = 2 * \M_PI * $r['hz'] / $rateHz;
                $pole = exp(-$r['damping'] * $w);
                $bodies[] = [2 * $pole * cos($w), -$pole * $pole, $r['gain'] * 2 * $r['damping'] * sin($w), 0.0, 0.0];
            }
        }
        $samples = [];
        // So that its resonances have rung in.
        for ($t = -$count; $t < $count; ++$t) {
            $shake = 0.0;
            foreach ($shafts as [$w, $a, $phase]) {
                $shake += $a * (sin($w * $t + $phase) + 0.35 * sin(2 * ($w * $t + $phase) + 0.8));
            }
            $drive = 6 * $shake;
            foreach ($bodies as $k => [$a1, $a2, $gain, $s1, $s2]) {
                $x = $a1 * $s1 + $a2 * $s2 + $gain * $drive;
                $bodies[$k][4] = $s1;
                $bodies[$k][3] = $x;
                $shake += $x;
            }
            if ($t >= 0) {
                $samples[] = $shake + $this->craft->gyroNoiseDps * $random[$t];
            }
        }

        return $samples;
    }
}
