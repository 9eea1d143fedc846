<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

/**
 * How fast a craft comes down with a fixed output: a = g·((u·V)²/(u_h·V_h)² − 1) − sign(v)·g·v²/v_t² (RULES 16), v upward. Thrust grows
 * with the square of output times voltage; drag with the square of speed.
 */
final readonly class SinkSpeed
{
    public const G = 9.81;

    /** Where nobody measured it, m/s. */
    public const TERMINAL_MS = 20.0;

    /** A landing between these leaves a craft whole, m/s. */
    public const SOFT = [1.5, 2.5];

    private const STEP_S = 0.002;
    private const MOST_S = 600.0;

    /**
     * @param float $hoverPct   output at which it hovers
     * @param float $hoverV     pack voltage at that
     * @param float $terminalMs speed at which it falls with motors off
     */
    private function __construct(public float $hoverPct, public float $hoverV, public float $terminalMs)
    {
    }

    public static function of(float $hoverPct, float $hoverV, float $terminalMs = self::TERMINAL_MS): self
    {
        if ($hoverPct <= 0 || $hoverV <= 0 || $terminalMs <= 0) {
            throw new \InvalidArgumentException("$hoverPct %, $hoverV V, $terminalMs m/s");
        }

        return new self($hoverPct, $hoverV, $terminalMs);
    }

    /** Lift over weight. */
    public function lift(float $outputPct, float $volts): float
    {
        return (($outputPct * $volts) / ($this->hoverPct * $this->hoverV)) ** 2;
    }

    /** m/s² downward, while it sinks at so many m/s. */
    public function acceleration(float $sinkMs, float $outputPct, float $volts): float
    {
        $drag = ($sinkMs <=> 0.0) * ($sinkMs / $this->terminalMs) ** 2;

        return self::G * (1 - $this->lift($outputPct, $volts) - $drag);
    }

    /** Steady speed, m/s, downward; negative where it climbs. */
    public function steady(float $outputPct, float $volts): float
    {
        $over = $this->lift($outputPct, $volts) - 1;

        return -($over <=> 0.0) * $this->terminalMs * sqrt(abs($over));
    }

    /** The output that sinks at a speed, %. */
    public function output(float $sinkMs, float $volts): float
    {
        $lift = max(0.0, 1 - ($sinkMs <=> 0.0) * ($sinkMs / $this->terminalMs) ** 2);

        return (sqrt($lift) * $this->hoverPct * $this->hoverV) / $volts;
    }

    /**
     * From a height, at rest.
     *
     * @return array{float, float}|null seconds and speed at the ground; null where it never comes down
     */
    public function fall(float $heightM, float $outputPct, float $volts): ?array
    {
        if ($this->lift($outputPct, $volts) >= 1) {
            return null;
        }
        $v = 0.0;
        for ($t = 0.0, $h = $heightM; $t < self::MOST_S; $t += self::STEP_S) {
            if ($h <= 0) {
                return [$t, $v];
            }
            $v += $this->acceleration($v, $outputPct, $volts) * self::STEP_S;
            $h -= $v * self::STEP_S;
        }

        return null;
    }

    /**
     * The output for a soft landing over all voltages at which a loss may come: it sinks at no less than the slower speed with the
     * fullest pack, and at no more than the faster with the emptiest.
     *
     * @return array{float, float}|null least and most, %; null where no fixed output does both
     */
    public function advised(float $fromV, float $toV): ?array
    {
        [$full, $empty] = [max($fromV, $toV), min($fromV, $toV)];
        $most = $this->output(self::SOFT[0], $full);
        $least = $this->output(self::SOFT[1], $empty);

        return $least <= $most ? [$least, $most] : null;
    }
}
