<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Surroundings;

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Airframe\Feet;

/**
 * Where the craft is in the world and how it lies: attitude as a quaternion from body to world axes (Stevens and Lewis, Aircraft Control
 * and Simulation), place and speed in north, east, down, m and m/s. Drag goes with the square of the speed through the air; the ground
 * pushes at the craft's feet as springs that only give back less than they took, with Coulomb friction.
 */
final class Motion
{
    private const G = 9.81;

    /** A foot sinks in so far under the craft's own weight, m: marsh. */
    private const GIVES_M = 0.002;

    private const DAMPING = 0.5;
    private const FRICTION = 0.6;

    /** Below this slip friction fades, m/s. */
    private const STICK_MS = 0.1;

    /** @var array{float, float, float} north, east, down; m */
    public array $at = [0.0, 0.0, 0.0];

    /** @var array{float, float, float} m/s */
    public array $speed = [0.0, 0.0, 0.0];

    /** @var array{float, float, float} what an accelerometer feels, body axes, g */
    public array $felt = [0.0, 0.0, -1.0];

    /** Hardest meeting with the ground so far, m/s. */
    public float $impact = 0.0;

    public bool $touches = false;

    /** @var array{float, float, float} of the body, deg/s */
    public array $turning = [0.0, 0.0, 0.0];

    private float $w = 1.0;
    private float $x = 0.0;
    private float $y = 0.0;
    private float $z = 0.0;
    private readonly float $stiffness;
    private readonly float $damper;
    private readonly float $reach;

    public function __construct(private readonly CraftPhysics $craft, private readonly Feet $feet)
    {
        $share = $craft->massKg / $feet->atOnce;
        $this->stiffness = ($share * self::G) / self::GIVES_M;
        $this->damper = 2 * self::DAMPING * sqrt($this->stiffness * $share);
        $this->reach = $feet->reach;
    }

    /** Standing on its feet, as it comes to rest there. */
    public function stand(): void
    {
        $this->at = [0.0, 0.0, -$this->feet->leg + self::GIVES_M];
    }

    /** Lying on its back. */
    public function lieOver(): void
    {
        [$this->w, $this->x, $this->y, $this->z] = [0.0, 1.0, 0.0, 0.0];
        $this->at = [0.0, 0.0, -$this->feet->leg + self::GIVES_M];
    }

    public function height(): float
    {
        return -$this->at[2];
    }

    /**
     * Turned by the body's own rates for a time.
     *
     * @param array<int, float> $rate deg/s
     */
    public function turn(array $rate, float $dt): void
    {
        $h = 0.5 * $dt * 0.017453292519943295;
        [$p, $q, $r] = [$rate[0] * $h, $rate[1] * $h, $rate[2] * $h];
        [$w, $x, $y, $z] = [$this->w, $this->x, $this->y, $this->z];
        $nw = $w - $x * $p - $y * $q - $z * $r;
        $nx = $x + $w * $p + $y * $r - $z * $q;
        $ny = $y + $w * $q + $z * $p - $x * $r;
        $nz = $z + $w * $r + $x * $q - $y * $p;
        $n = 1 / sqrt($nw * $nw + $nx * $nx + $ny * $ny + $nz * $nz);
        $this->w = $nw * $n;
        $this->x = $nx * $n;
        $this->y = $ny * $n;
        $this->z = $nz * $n;
    }

    /** @return array{float, float, float} roll, pitch and heading, deg */
    public function lean(): array
    {
        [$w, $x, $y, $z] = [$this->w, $this->x, $this->y, $this->z];

        return [
            rad2deg(atan2(2 * ($w * $x + $y * $z), 1 - 2 * ($x * $x + $y * $y))),
            rad2deg(asin(max(-1.0, min(1.0, 2 * ($w * $y - $z * $x))))),
            rad2deg(atan2(2 * ($w * $z + $x * $y), 1 - 2 * ($y * $y + $z * $z))),
        ];
    }

    /** Angle between the craft's own upright and the world's, deg. */
    public function tilt(): float
    {
        return rad2deg(acos(max(-1.0, min(1.0, 1 - 2 * ($this->x * $this->x + $this->y * $this->y)))));
    }

    /**
     * One step of flight.
     *
     * @param array{float, float, float} $rate of the body, deg/s
     * @param float                      $lift upward through the craft, N
     * @param array{float, float, float} $wind m/s
     *
     * @return array{float, float, float} the rate after it: the ground turns a craft, and so does its own spin
     */
    public function fly(array $rate, float $lift, array $wind, float $dt): array
    {
        [$w, $x, $y, $z] = [$this->w, $this->x, $this->y, $this->z];
        $m = $this->craft->massKg;
        // Body axes in the world: forward, right, down.
        $fx = 1 - 2 * ($y * $y + $z * $z);
        $fy = 2 * ($x * $y + $w * $z);
        $fz = 2 * ($x * $z - $w * $y);
        $rx = 2 * ($x * $y - $w * $z);
        $ry = 1 - 2 * ($x * $x + $z * $z);
        $rz = 2 * ($y * $z + $w * $x);
        $dx = 2 * ($x * $z + $w * $y);
        $dy = 2 * ($y * $z - $w * $x);
        $dz = 1 - 2 * ($x * $x + $y * $y);
        [$vx, $vy, $vz] = $this->speed;
        [$ux, $uy, $uz] = [$vx - $wind[0], $vy - $wind[1], $vz - $wind[2]];
        $fast = self::G * sqrt($ux * $ux + $uy * $uy + $uz * $uz);
        $level = $fast / ($this->craft->tilted45Ms * $this->craft->tilted45Ms);
        $fall = $fast / ($this->craft->terminalMs * $this->craft->terminalMs);
        $ax = -($lift / $m) * $dx - $level * $ux;
        $ay = -($lift / $m) * $dy - $level * $uy;
        $az = -($lift / $m) * $dz - $fall * $uz;
        // A body that spins about two axes turns about the third (Euler).
        [$ix, $iy, $iz] = $this->craft->inertia;
        [$p, $q, $r] = $rate;
        $k = 0.017453292519943295 * $dt;
        $p += (($iy - $iz) / $ix) * $q * $r * $k;
        $q += (($iz - $ix) / $iy) * $r * $rate[0] * $k;
        $r += (($ix - $iy) / $iz) * $rate[0] * $rate[1] * $k;
        $this->touches = false;
        if (-$this->at[2] < $this->reach) {
            $ground = $this->ground([[$fx, $fy, $fz], [$rx, $ry, $rz], [$dx, $dy, $dz]], $rate, $dt);
            $ax += $ground[0] / $m;
            $ay += $ground[1] / $m;
            $az += $ground[2] / $m;
            $p += rad2deg($ground[3] / $ix) * $dt;
            $q += rad2deg($ground[4] / $iy) * $dt;
            $r += rad2deg($ground[5] / $iz) * $dt;
        }
        $this->felt = [
            ($ax * $fx + $ay * $fy + $az * $fz) / self::G,
            ($ax * $rx + $ay * $ry + $az * $rz) / self::G,
            ($ax * $dx + $ay * $dy + $az * $dz) / self::G,
        ];
        $this->speed = [$vx + $ax * $dt, $vy + $ay * $dt, $vz + ($az + self::G) * $dt];
        $this->at = [
            $this->at[0] + $this->speed[0] * $dt,
            $this->at[1] + $this->speed[1] * $dt,
            $this->at[2] + $this->speed[2] * $dt,
        ];
        $this->turn([$p, $q, $r], $dt);
        $this->turning = [$p, $q, $r];

        return [$p, $q, $r];
    }

    /**
     * What the ground does at all feet that are in it.
     *
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $body forward, right and down
     * @param array{float, float, float}                                                                $rate deg/s
     *
     * @return array{float, float, float, float, float, float} force in the world, N, and torque about the body's axes, Nm
     */
    private function ground(array $body, array $rate, float $dt): array
    {
        [$f, $r, $d] = $body;
        [$p, $q, $s] = [deg2rad($rate[0]), deg2rad($rate[1]), deg2rad($rate[2])];
        $out = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        $most = (0.5 * $this->craft->massKg) / ($this->feet->atOnce * $dt);
        foreach ($this->feet->points as [$x, $y, $z]) {
            $deep = $this->at[2] + $x * $f[2] + $y * $r[2] + $z * $d[2];
            if ($deep <= 0) {
                continue;
            }
            $this->touches = true;
            // How the foot moves: with the craft, and about it.
            [$bx, $by, $bz] = [$q * $z - $s * $y, $s * $x - $p * $z, $p * $y - $q * $x];
            $vx = $this->speed[0] + $bx * $f[0] + $by * $r[0] + $bz * $d[0];
            $vy = $this->speed[1] + $bx * $f[1] + $by * $r[1] + $bz * $d[1];
            $vz = $this->speed[2] + $bx * $f[2] + $by * $r[2] + $bz * $d[2];
            $this->impact = max($this->impact, $vz);
            $push = max(0.0, $this->stiffness * $deep + $this->damper * $vz);
            $slip = max(self::STICK_MS, sqrt($vx * $vx + $vy * $vy));
            $drag = min((self::FRICTION * $push) / $slip, $most);
            [$wx, $wy, $wz] = [-$drag * $vx, -$drag * $vy, -$push];
            $out[0] += $wx;
            $out[1] += $wy;
            $out[2] += $wz;
            $cx = $wx * $f[0] + $wy * $f[1] + $wz * $f[2];
            $cy = $wx * $r[0] + $wy * $r[1] + $wz * $r[2];
            $cz = $wx * $d[0] + $wy * $d[1] + $wz * $d[2];
            $out[3] += $y * $cz - $z * $cy;
            $out[4] += $z * $cx - $x * $cz;
            $out[5] += $x * $cy - $y * $cx;
        }

        return $out;
    }
}
