<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\Craft\SettingSet;

/**
 * When a board stops its motors by itself: lying upside down for so long, standing still for so long, turning on the ground though
 * nobody asked. Each can be off. It takes no position and no height: on the ground is where throttle was not near
 * hover for long since it was armed.
 */
final class SelfDisarm
{
    /** Beyond this lean it lies upside down, deg. */
    private const OVER_DEG = 120.0;

    private const STILL_DPS = 5.0;
    private const STILL_THROTTLE = 0.08;

    /** Faster than asked by this, deg/s. */
    private const UNASKED_DPS = 60.0;

    /** With more than this share of hover for so long it has left the ground, s. */
    private const LIFTS = 0.7;

    private const LIFTS_S = 0.6;

    /** Turning is looked at over about so long, s: a gyro is never quite still. */
    private const OVER_S = 0.3;

    /** Whoever looks more seldom has not seen what was between, s. */
    private const LONGEST_S = 2.0;

    private float $at = 0.0;
    private float $turns = 0.0;
    private float $over = 0.0;
    private float $still = 0.0;
    private float $unasked = 0.0;
    private float $lifting = 0.0;

    private function __construct(
        private readonly float $overS,
        private readonly float $stillS,
        private readonly float $unaskedS,
        private readonly float $hover,
    ) {
    }

    public static function in(SettingSet $set): self
    {
        return new self(
            $set->number('disarm.upside_down_s'),
            $set->number('disarm.still_s'),
            $set->number('disarm.unasked_turn_s'),
            $set->number('throttle.hover_output_pct', 50) / 100,
        );
    }

    /** @param array<mixed> $kept as toArray() gave it */
    public function from(array $kept): self
    {
        $number = static fn (string $name): float => is_numeric($kept[$name] ?? null) ? (float) $kept[$name] : 0.0;
        $this->turns = $number('turns');
        $this->over = $number('over');
        $this->still = $number('still');
        $this->unasked = $number('unasked');
        $this->lifting = $number('lifting');
        $this->at = $number('at');

        return $this;
    }

    /** @return array<string, float> */
    public function toArray(): array
    {
        return [
            'turns' => $this->turns,
            'over' => $this->over,
            'still' => $this->still,
            'unasked' => $this->unasked,
            'lifting' => $this->lifting,
            'at' => $this->at,
        ];
    }

    /** The same as look() by the clock: for who looks now and then. */
    public function looked(
        float $now,
        bool $armed,
        float $leanDeg,
        float $turnDps,
        float $askedDps,
        float $throttle,
        bool $righting,
    ): ?Stopped {
        $dt = max(0.0, min(self::LONGEST_S, $now - $this->at));
        $this->at = $now;

        return $this->look($dt, $armed, $leanDeg, $turnDps, $askedDps, $throttle, $righting);
    }

    /**
     * One look, a time after the last.
     *
     * @param float $leanDeg  from upright
     * @param float $turnDps  fastest of the three axes
     * @param float $askedDps what was asked of that axis
     * @param float $throttle share of output, 0 to 1
     * @param bool  $righting whether self-righting is on: then upside down is where it works
     */
    public function look(float $dt, bool $armed, float $leanDeg, float $turnDps, float $askedDps, float $throttle, bool $righting): ?Stopped
    {
        if (!$armed) {
            $this->turns = $this->over = $this->still = $this->unasked = 0.0;
            $this->lifting = 0.0;

            return null;
        }
        $this->lifting += $throttle > self::LIFTS * $this->hover ? $dt : 0.0;
        $this->over = $leanDeg > self::OVER_DEG && !$righting ? $this->over + $dt : 0.0;
        $this->turns += min(1.0, $dt / self::OVER_S) * (abs($turnDps) - $this->turns);
        $this->still = $this->turns < self::STILL_DPS && $throttle < self::STILL_THROTTLE ? $this->still + $dt : 0.0;
        $unasked = $this->lifting < self::LIFTS_S && !$righting && abs($turnDps - $askedDps) > self::UNASKED_DPS;
        $this->unasked = $unasked ? $this->unasked + $dt : 0.0;

        return match (true) {
            $this->unaskedS > 0 && $this->unasked >= $this->unaskedS => Stopped::UnaskedTurn,
            $this->overS > 0 && $this->over >= $this->overS => Stopped::UpsideDown,
            $this->stillS > 0 && $this->still >= $this->stillS => Stopped::StillOnGround,
            default => null,
        };
    }
}
