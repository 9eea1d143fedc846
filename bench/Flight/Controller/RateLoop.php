<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Controller;

/** The firmware's loop about each axis: command low-pass, P, I, D and feed-forward, in % of output; and what its log shows of them. */
final class RateLoop
{
    /** I and the whole are held within, %. */
    private const MOST_I = 30.0;

    private const MOST = 60.0;

    /** Below this throttle I waits, %. */
    private const I_FROM_PCT = 2.0;

    /** @var array{float, float, float} deg/s */
    public array $setpoint = [0.0, 0.0, 0.0];

    /** @var array{float, float, float} % */
    public array $p = [0.0, 0.0, 0.0];

    /** @var array{float, float, float} % */
    public array $i = [0.0, 0.0, 0.0];

    /** @var array{float, float, float} % */
    public array $d = [0.0, 0.0, 0.0];

    /** @var array{float, float, float} % */
    public array $ff = [0.0, 0.0, 0.0];

    /** @var array<int, float> */
    private array $before = [0.0, 0.0, 0.0];

    /** @var array<int, array{float, float, float, float}> */
    private array $commandState;

    /** @var array<int, array<int, array{float, float, float, float}>> */
    private array $dState;

    private readonly float $dt;

    public function __construct(private readonly FlightControl $control, private readonly float $loopHz)
    {
        $this->dt = 1.0 / $loopHz;
        $still = [0.0, 0.0, 0.0, 0.0];
        $this->commandState = array_fill(0, 3, $still);
        $this->dState = array_fill(0, 3, array_fill(0, \count($control->dPath), $still));
    }

    /** What was gathered goes: nothing is to be held by a craft that is disarmed. */
    public function rest(): void
    {
        $this->i = [0.0, 0.0, 0.0];
    }

    /**
     * @param array<int, float> $wanted   deg/s
     * @param array<int, float> $filtered deg/s
     * @param float             $throttle %
     * @param float             $volts    of the pack
     * @param float             $nominal  volts that gains are meant for
     *
     * @return array{float, float, float} % about each axis
     */
    public function command(array $wanted, array $filtered, float $throttle, float $volts, float $nominal): array
    {
        $c = $this->control;
        $f = $c->command;
        $sag = $c->sagRise > 0 ? 1 + $c->sagRise * ($nominal / max($volts, 0.5 * $nominal) - 1) : 1.0;
        $scale = $sag * ($throttle > 50 ? 1 - ($c->fall * ($throttle - 50)) / 50 : 1.0);
        $out = [0.0, 0.0, 0.0];
        for ($axis = 0; $axis < 3; ++$axis) {
            [$x1, $x2, $y1, $y2] = $this->commandState[$axis];
            $sp = $f->b0 * $wanted[$axis] + $f->b1 * $x1 + $f->b2 * $x2 - $f->a1 * $y1 - $f->a2 * $y2;
            $this->commandState[$axis] = [$wanted[$axis], $x1, $sp, $y1];
            $change = ($sp - $this->setpoint[$axis]) * $this->loopHz;
            $this->setpoint[$axis] = $sp;
            $error = $sp - $filtered[$axis];
            $d = ($this->before[$axis] - $filtered[$axis]) * $this->loopHz;
            $this->before[$axis] = $filtered[$axis];
            foreach ($c->dPath as $s => $g) {
                [$x1, $x2, $y1, $y2] = $this->dState[$axis][$s];
                $y = $g->b0 * $d + $g->b1 * $x1 + $g->b2 * $x2 - $g->a1 * $y1 - $g->a2 * $y2;
                $this->dState[$axis][$s] = [$d, $x1, $y, $y1];
                $d = $y;
            }
            $gd = $c->kd[$axis];
            if ($c->addedD[$axis] > 0) {
                $gd += $c->addedD[$axis] * min(1.0, max(abs($change) / 8000, abs($filtered[$axis]) / 500));
            }
            if ($throttle > self::I_FROM_PCT) {
                $i = $this->i[$axis] + $c->ki[$axis] * $error * $this->dt;
                $this->i[$axis] = max(-self::MOST_I, min(self::MOST_I, $i));
            }
            $this->p[$axis] = $c->kp[$axis] * $error * $scale;
            $this->d[$axis] = $gd * $d * $scale;
            $this->ff[$axis] = $c->kf[$axis] * $change;
            $out[$axis] = max(-self::MOST, min(self::MOST, $this->p[$axis] + $this->i[$axis] + $this->d[$axis] + $this->ff[$axis]));
        }

        return $out;
    }
}
