<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/**
 * What the switching frequency costs and buys: flight time against authority at low throttle.
 *
 * Losses of a three-phase bridge per ESC, textbook forms (Mohan, Undeland, Robbins: Power Electronics):
 * ripple of the phase current ΔI = V·d(1−d)/(L·f), its heat R·ΔI²/12; switching ½·V·I·(t_rise + t_fall)·f. Dead time
 * takes its share t_dead·f of each period, which at a small duty is a large part of the duty itself.
 */
final readonly class SwitchingTrade
{
    /** Phase inductance and resistance of a small outrunner, and the edges of its transistors. */
    private const INDUCTANCE_H = 16e-6;

    private const RESISTANCE_OHM = 0.09;
    private const EDGES_S = 34e-9;

    /** Duty that a gentle descent asks for. */
    private const LOW_DUTY = 0.08;

    /** Fewer steps of output than this in a period are felt in the throttle: one of 500 is 0.2 %. */
    public const LEAST_STEPS = 500;

    private function __construct(public int $kiloHertz, public float $rippleW, public float $switchingW, public float $lowAuthority)
    {
    }

    /**
     * @param float $volts  of the pack
     * @param float $amps   of one motor in hover
     * @param float $duty   in hover, 0 to 1
     */
    public static function of(int $kiloHertz, float $volts, float $amps, float $duty, int $deadTimeNs): self
    {
        $f = 1e3 * $kiloHertz;
        $ripple = ($volts * $duty * (1 - $duty)) / (self::INDUCTANCE_H * $f);

        return new self(
            $kiloHertz,
            (self::RESISTANCE_OHM * $ripple ** 2) / 12,
            0.5 * $volts * $amps * self::EDGES_S * $f,
            max(0.0, 1 - ($deadTimeNs * 1e-9 * $f) / self::LOW_DUTY),
        );
    }

    /** How many steps of output a period of switching has, as the timer of a processor counts it. */
    public static function steps(int $clockMhz, int $kiloHertz): int
    {
        return $kiloHertz > 0 ? intdiv(1000 * $clockMhz, $kiloHertz) : 0;
    }

    /**
     * Change of flight time against another frequency, in percent: the same energy, other losses.
     *
     * @param float $watts electrical power of one motor in hover
     */
    public function flightTimePct(self $against, float $watts): float
    {
        return 100 * (($watts + $against->rippleW + $against->switchingW) / ($watts + $this->rippleW + $this->switchingW) - 1);
    }
}
