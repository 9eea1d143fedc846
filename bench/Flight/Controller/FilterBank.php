<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Controller;

use Ortholex\Core\Filters\TrackingNotches;
use Ortholex\Core\Signal\FilterStage;

/** The firmware's filters on the rate, with their memories: motor notches, tracking notches, then the stages of the rate path. */
final class FilterBank
{
    /** Motor notches are moved every so many steps. */
    private const MOVED_EVERY = 4;

    /** Tracking notches look at no more samples a second than this. */
    private const LOOK_HZ = 2000.0;

    private readonly int $notches;
    private readonly int $thin;
    private readonly float $dt;

    /** @var array<int, float> coefficients of the motor notches, by order and then motor */
    private array $b0;

    /** @var array<int, float> */
    private array $b1;

    /** @var array<int, float> */
    private array $a2;

    /** @var array<int, float> what went in and came out before, by axis and then notch */
    private array $x1;

    /** @var array<int, float> */
    private array $x2;

    /** @var array<int, float> */
    private array $y1;

    /** @var array<int, float> */
    private array $y2;

    /** @var list<TrackingNotches> by axis */
    private readonly array $tracking;

    /** @var array<int, list<FilterStage>> */
    private array $trackStages;

    /** @var array<int, array<int, array{float, float, float, float}>> */
    private array $trackState;

    /** @var array<int, array<int, array{float, float, float, float}>> */
    private array $rateState;

    public function __construct(
        private readonly FlightControl $control,
        private readonly float $loopHz,
        private readonly int $motors,
        private readonly float $maxRpm,
    ) {
        $still = [0.0, 0.0, 0.0, 0.0];
        $this->dt = 1.0 / $loopHz;
        $this->notches = \count($control->orders) * $motors;
        $this->b0 = $this->b1 = $this->a2 = array_fill(0, max(1, $this->notches), 0.0);
        $this->x1 = $this->x2 = $this->y1 = $this->y2 = array_fill(0, 3 * max(1, $this->notches), 0.0);
        $this->thin = max(1, (int) round($loopHz / self::LOOK_HZ));
        $this->tracking = $control->trackers($loopHz / $this->thin);
        $this->trackStages = [[], [], []];
        $this->trackState = array_fill(0, 3, array_fill(0, max(1, $control->trackCount), $still));
        foreach ($this->tracking as $axis => $track) {
            $this->trackStages[$axis] = $control->trackedAt($track->centres, $loopHz);
        }
        $this->rateState = array_fill(0, 3, array_fill(0, \count($control->ratePath), $still));
    }

    /** @return array<int, float> where the tracking notches of roll stand, Hz */
    public function tracked(): array
    {
        return [] === $this->tracking ? [] : $this->tracking[0]->centres;
    }

    /**
     * @param array{float, float, float} $measured deg/s
     * @param array<int, float>          $speed    of each motor, of full
     *
     * @return array{float, float, float} deg/s
     */
    public function filter(int $step, array $measured, array $speed): array
    {
        if ($this->notches > 0 && 0 === $step % self::MOVED_EVERY) {
            $this->follow($speed);
        }
        $filtered = [0.0, 0.0, 0.0];
        for ($axis = 0; $axis < 3; ++$axis) {
            $x = $measured[$axis];
            for ($j = 0, $k = $axis * $this->notches; $j < $this->notches; ++$j, ++$k) {
                $y =
                    $this->b0[$j] * ($x + $this->x2[$k])
                    + $this->b1[$j] * ($this->x1[$k] - $this->y1[$k])
                    - $this->a2[$j] * $this->y2[$k];
                $this->x2[$k] = $this->x1[$k];
                $this->x1[$k] = $x;
                $this->y2[$k] = $this->y1[$k];
                $this->y1[$k] = $y;
                $x = $y;
            }
            if ($this->control->trackCount > 0) {
                $x = $this->track($step, $axis, $x);
            }
            foreach ($this->control->ratePath as $s => $f) {
                [$x1, $x2, $y1, $y2] = $this->rateState[$axis][$s];
                $y = $f->b0 * $x + $f->b1 * $x1 + $f->b2 * $x2 - $f->a1 * $y1 - $f->a2 * $y2;
                $this->rateState[$axis][$s] = [$x, $x1, $y, $y1];
                $x = $y;
            }
            $filtered[$axis] = $x;
        }

        return $filtered;
    }

    /** @param array<int, float> $speed */
    private function follow(array $speed): void
    {
        $j = 0;
        foreach ($this->control->orders as $order) {
            for ($i = 0; $i < $this->motors; ++$i, ++$j) {
                // Above what the loop can hold, the notch waits at its highest.
                $rotor = ($order * abs($speed[$i]) * $this->maxRpm) / 60;
                $centre = min($this->control->notchTopHz, max($this->control->notchFloorHz, $rotor));
                $w = 2 * \M_PI * $centre * $this->dt;
                $alpha = sin($w) / (2 * $this->control->notchQ);
                $inv = 1 / (1 + $alpha);
                $this->b0[$j] = $inv;
                $this->b1[$j] = -2 * cos($w) * $inv;
                $this->a2[$j] = (1 - $alpha) * $inv;
            }
        }
    }

    private function track(int $step, int $axis, float $x): float
    {
        if (0 === $step % $this->thin && $this->tracking[$axis]->push($x)) {
            $this->trackStages[$axis] = $this->control->trackedAt($this->tracking[$axis]->centres, $this->loopHz);
        }
        foreach ($this->trackStages[$axis] as $s => $f) {
            [$x1, $x2, $y1, $y2] = $this->trackState[$axis][$s];
            $y = $f->b0 * $x + $f->b1 * $x1 + $f->b2 * $x2 - $f->a1 * $y1 - $f->a2 * $y2;
            $this->trackState[$axis][$s] = [$x, $x1, $y, $y1];
            $x = $y;
        }

        return $x;
    }
}
