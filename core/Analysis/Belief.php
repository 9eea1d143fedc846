<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** How far a step response can be believed: a grade, the reasons, and what to fly instead. */
final readonly class Belief
{
    public const FIRM = 'firm';
    public const FAIR = 'fair';
    public const WEAK = 'weak';
    public const NONE = 'none';

    /** Spread of D's gain beyond which it was not one tune that flew. */
    private const D_VARIES = 0.15;

    /** @param list<string> $reasons */
    private function __construct(public string $grade, public array $reasons, public string $flyInstead)
    {
    }

    /**
     * @param float $feedForward   RMS of the feed-forward term over RMS of P, 0 when it was off
     * @param float      $otherMovement RMS of the busiest other axis' setpoint, deg/s
     * @param float|null $dSpread       spread of D's gain over the flight, as Steadiness gives it; null when unknown
     */
    public static function in(StepResult $step, float $feedForward, float $otherMovement, ?float $dSpread = null): self
    {
        $reasons = [];
        $lost = 0;
        if ($step->used < 16) {
            $reasons[] = \sprintf('only %d windows (%.0f s) have enough stick movement', $step->used, $step->seconds);
            $lost += $step->used < 6 ? 2 : 1;
        }
        $delay = $step->intervals['delay_ms'] ?? null;
        $peak = $step->intervals['peak'] ?? null;
        if (null === $delay || null === $peak) {
            $reasons[] = 'too little flight to say how uncertain the numbers are';
            ++$lost;
        } else {
            if ($delay[1] - $delay[0] > 4.0) {
                $reasons[] = \sprintf('the delay is uncertain by %.1f ms', $delay[1] - $delay[0]);
                $lost += $delay[1] - $delay[0] > 10 ? 2 : 1;
            }
            if ($peak[1] - $peak[0] > 0.12) {
                $reasons[] = \sprintf('the peak is uncertain by %.2f', $peak[1] - $peak[0]);
                ++$lost;
            }
        }
        if (abs($step->numbers['steady'] - 1) > 0.07) {
            $reasons[] = \sprintf('it settles at %.2f instead of 1', $step->numbers['steady']);
            $lost += abs($step->numbers['steady'] - 1) > 0.2 ? 2 : 1;
        }
        if ($feedForward > 0.1) {
            $reasons[] = \sprintf('feed-forward was on (%.0f %% of P), so the curve is not P and D alone', 100 * $feedForward);
            ++$lost;
        }
        if (null !== $dSpread && $dSpread > self::D_VARIES) {
            $reasons[] = \sprintf('D varied by %.0f %% within the flight, so the curve is the mean of several tunes', 100 * $dSpread);
            ++$lost;
        }
        $struck = $step->rejected[StepWindows::STRUCK] ?? 0;
        if ($struck > 0) {
            $reasons[] = \sprintf('%d window%s struck out by hand', $struck, 1 === $struck ? ' was' : 's were');
            if ($struck > 0.25 * ($step->used + $struck)) {
                ++$lost;
            }
        }
        if ($otherMovement < 15) {
            $reasons[] = 'only one axis was moved, so coupling between axes is not averaged out';
        }
        $grade = match (true) {
            0 === $lost => self::FIRM,
            $lost < 2 => self::FAIR,
            default => self::WEAK,
        };

        return new self($grade, $reasons, self::FIRM === $grade ? '' : match (true) {
            $feedForward > 0.1 && null !== $dSpread && $dSpread > self::D_VARIES => 'Fly Mixed sticks with feed-forward and added D off.',
            $feedForward > 0.1 => 'Fly Mixed sticks with feed-forward off.',
            null !== $dSpread && $dSpread > self::D_VARIES => 'Fly Mixed sticks with added D and the fall with throttle off.',
            default => 'Fly Mixed sticks for 40 s: large random moves of roll and pitch together, no long pauses.',
        });
    }

    public static function none(string $why): self
    {
        return new self(self::NONE, [$why], 'Fly Mixed sticks for 40 s: large random moves of roll and pitch together, no long pauses.');
    }
}
