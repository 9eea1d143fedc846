<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

use Ortholex\Bench\Flight\Controller\FlightControl;

/** What the firmware is told at a moment: the rates that are wanted, throttle, and whether the motors may turn at all. */
abstract class Commands
{
    /** @var array<int, float> roll, pitch, yaw and throttle as they were heard last, µs */
    public array $stickUs = [1500.0, 1500.0, 1500.0, 1000.0];

    /** @var array<int, float> deg/s */
    public array $wanted = [0.0, 0.0, 0.0];

    /** Of what there is between idle and full, %. */
    public float $throttle = 0.0;

    public bool $armed = true;
    public bool $airMode;

    /** Whether the sticks lift the craft off its back. */
    public bool $righting = false;

    protected ?Steering $steering;

    /** @var array<int, float> −1 to 1 */
    protected array $held = [0.0, 0.0, 0.0];

    /** Throttle by the stick alone, %. */
    protected float $asked = 0.0;

    public function __construct(protected readonly FlightControl $control)
    {
        $this->steering = $control->steering;
        $this->airMode = $control->airMode;
    }

    /** @return array{float, float} roll and pitch of the sticks, −1 to 1 */
    public function thumbs(): array
    {
        return [$this->held[0], $this->held[1]];
    }

    /**
     * What the steering makes of the sticks, leaned as the craft is.
     *
     * @param array{float, float, float} $lean roll, pitch and heading, deg
     */
    public function steer(array $lean): void
    {
        if (null !== $this->steering) {
            $this->wanted = $this->steering->rates([$this->held[0], $this->held[1], $this->held[2]], $lean);
            $this->throttle = $this->steering->throttle($this->asked, $lean);
        }
    }

    /** @param array<int, float> $us roll, pitch, yaw and throttle */
    protected function take(array $us): void
    {
        $this->stickUs = $us;
        for ($s = 0; $s < 3; ++$s) {
            $this->held[$s] = $this->control->span[$s]->position($us[$s], $this->control->deadBandUs);
            $this->wanted[$s] = $this->control->feel[$s]->rate($this->held[$s]);
        }
        $this->asked = $this->throttle = 100 * $this->control->throttle->output(($this->control->span[3]->position($us[3]) + 1) / 2);
    }
}
