<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\Parts\Motor;
use Ortholex\Core\Parts\Prop;

/**
 * One motor with its prop and ESC at a voltage: where the torque of the one is what the other takes.
 *
 * Motor: U = ω/k + I R, torque = k_t (I − I₀), with k_t = 1/k in SI. Speeds up as a first-order lag: J over the slopes of both torques.
 */
final readonly class Propulsion
{
    private const MOST_TURNS = 1500.0;

    private function __construct(
        public float $rpm,
        public float $thrustN,
        public float $amps,
    ) {
    }

    /** At full output of so many volts. */
    public static function at(Motor $motor, Prop $prop, float $escOhm, float $volts): self
    {
        $kt = $motor->torquePerA();
        $ohm = $motor->ohm + $escOhm;
        $low = 0.0;
        $high = self::MOST_TURNS;
        for ($i = 0; $i < 60; ++$i) {
            $turns = ($low + $high) / 2;
            $amps = ($volts - $kt * 2 * \M_PI * $turns) / $ohm;
            $kt * ($amps - $motor->idleA) > $prop->torqueNm($turns) ? $low = $turns : $high = $turns;
        }
        $turns = ($low + $high) / 2;

        return new self(60 * $turns, $prop->thrustN($turns), max(0.0, ($volts - $kt * 2 * \M_PI * $turns) / $ohm));
    }

    /** Seconds in which it goes 63 % of the way to another speed, around so many turns a second. */
    public static function lagS(Motor $motor, Prop $prop, float $escOhm, float $turns): float
    {
        $kt = $motor->torquePerA();
        $slope = $kt ** 2 / ($motor->ohm + $escOhm) + 2 * $prop->torqueNm($turns) / (2 * \M_PI * max(1.0, $turns));

        return ($motor->inertia() + $prop->inertia()) / $slope;
    }
}
