<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Sensors;

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Craft\SettingSet;

/**
 * What the gyro reports: the craft's rotation through the board's true and believed mounting, the shake of the props, what the
 * frame makes of it, its own noise, and its resolution.
 */
final class Gyro
{
    /** Its analogue low-pass is this far down at, Hz. */
    public const SOFT_HZ = 450.0;

    /** Steps per deg/s: 2000 deg/s over 15 bits. */
    private const STEPS_PER_DPS = 16.4;

    /** A loose arm rings here, about pitch and, weaker, about roll. */
    public const LOOSE_ARM = [
        ['axis' => 1, 'hz' => 187.0, 'damping' => 0.015, 'gain' => 1.6],
        ['axis' => 0, 'hz' => 187.0, 'damping' => 0.015, 'gain' => 0.5],
    ];

    /** How much more a bent prop shakes. */
    private const BENT = 6.0;

    /** @var array<int, float> shake of the last reading, deg/s about roll, pitch and yaw */
    public array $shake = [0.0, 0.0, 0.0];

    /** @var array<int, float> of each motor, rad */
    private array $phase = [];

    /** @var array<int, float> */
    private array $imbalance;

    /** @var list<int> */
    private array $axis = [];

    /** @var array<int, float> coefficients and states of the resonances */
    private array $a1 = [];

    /** @var array<int, float> */
    private array $a2 = [];

    /** @var array<int, float> */
    private array $gain = [];

    /** @var array<int, float> */
    private array $s1 = [];

    /** @var array<int, float> */
    private array $s2 = [];

    private readonly Rotation $really;
    private readonly Rotation $believed;
    private readonly bool $straight;

    /**
     * @param list<string> $faults
     * @param int|null     $bent   index of the motor whose prop is bent, where there is that fault
     */
    public function __construct(
        private readonly CraftPhysics $craft,
        SettingSet $set,
        array $faults,
        ?int $bent,
        private readonly float $dt,
    ) {
        foreach (array_keys($craft->frame->motors) as $i) {
            $this->phase[] = 1.7 * $i;
        }
        $this->imbalance = $craft->imbalance;
        if (\in_array('bent_prop', $faults, true)) {
            $this->imbalance[$bent ?? 0] *= self::BENT;
        }
        foreach ([...$craft->resonances, ...(\in_array('loose_arm', $faults, true) ? self::LOOSE_ARM : [])] as $r) {
            $w = 2 * \M_PI * $r['hz'] * $dt;
            $pole = exp(-$r['damping'] * $w);
            $this->axis[] = $r['axis'];
            $this->a1[] = 2 * $pole * cos($w);
            $this->a2[] = -$pole * $pole;
            $this->gain[] = $r['gain'] * 2 * $r['damping'] * sin($w);
            $this->s1[] = $this->s2[] = 0.0;
        }
        $set = [$set->number('mounting.roll_deg'), $set->number('mounting.pitch_deg'), $set->number('mounting.yaw_deg')];
        $this->really = Rotation::degrees(...$craft->mountedDeg);
        $this->believed = Rotation::degrees(...$set);
        $off = array_map(static fn (float $a, float $b): float => abs($a - $b), $set, $craft->mountedDeg);
        $this->straight = $off[0] + $off[1] + $off[2] < 1e-6;
    }

    /**
     * @param array{float, float, float} $rate  of the craft, deg/s
     * @param array<int, float>          $speed of each motor, of full
     * @param float                      $lift  of all motors, of one at full
     *
     * @return array{float, float, float} deg/s
     */
    public function read(array $rate, array $speed, float $lift, NoisePool $noise): array
    {
        $vx = $vy = $vz = 0.0;
        foreach ($speed as $i => $w) {
            $hz = ($w * $this->craft->maxRpm) / 60;
            $this->phase[$i] += 2 * \M_PI * $hz * $this->dt;
            if ($this->phase[$i] > 2 * \M_PI) {
                $this->phase[$i] -= 2 * \M_PI;
            }
            // Each prop at its speed and twice it; what lies near half the gyro's rate comes softer.
            $a = $this->imbalance[$i] * $w * $w * (1 / (1 + ($hz / self::SOFT_HZ) ** 2));
            $p = $this->phase[$i];
            $one = $a * sin($p);
            $two = 0.35 * $a * sin(2 * $p + 0.8);
            $vx += $one + $two;
            $vy += $a * sin($p + 1.3 + $i) + $two;
            $vz += 0.3 * $one;
        }
        $shake = [$vx, $vy, $vz];
        $random = $noise->values;
        $at = $noise->at;
        foreach ($this->axis as $r => $axis) {
            $drive = $shake[$axis] * 6 + $lift * 4.0 * $random[$at + $r];
            $x = $this->a1[$r] * $this->s1[$r] + $this->a2[$r] * $this->s2[$r] + $this->gain[$r] * $drive;
            $this->s2[$r] = $this->s1[$r];
            $this->s1[$r] = $x;
            $shake[$axis] += $x;
        }
        $at += \count($this->axis);
        $this->shake = $shake;
        $seen = $this->straight ? $rate : $this->believed->apply($this->really->undo($rate));
        $own = $this->craft->gyroNoiseDps;
        $noise->at = $at + 3;

        return [
            round(($seen[0] + $shake[0] + $own * $random[$at]) * self::STEPS_PER_DPS) / self::STEPS_PER_DPS,
            round(($seen[1] + $shake[1] + $own * $random[$at + 1]) * self::STEPS_PER_DPS) / self::STEPS_PER_DPS,
            round(($seen[2] + $shake[2] + $own * $random[$at + 2]) * self::STEPS_PER_DPS) / self::STEPS_PER_DPS,
        ];
    }
}
