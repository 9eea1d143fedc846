<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Switches\Action;

/**
 * What the firmware makes of sticks when an action steers: in angle the stick is a tilt, in horizon it levels around the centre only,
 * and with take-off heading steering roll and pitch are taken as at take-off, however the craft has turned since.
 */
final readonly class Steering
{
    /** More than this the lift of throttle does not give: at 60° of tilt. */
    private const MOST_LIFT = 2.0;

    /** @param list<Feel> $feel by axis */
    private function __construct(
        private array $feel,
        private bool $angle,
        private bool $horizon,
        private bool $heading,
        private float $fullTiltDeg,
        private float $strength,
        private float $levelUntil,
        private bool $lifts,
    ) {
    }

    /**
     * Null when nothing steers: the sticks are rates then, and there is nothing to reckon.
     *
     * @param list<Feel>   $feel
     * @param list<Action> $on
     */
    public static function of(SettingSet $set, array $feel, array $on): ?self
    {
        $is = static fn (Action $a): bool => \in_array($a, $on, true);
        if (!$is(Action::Angle) && !$is(Action::Horizon) && !$is(Action::HeadingSteering)) {
            return null;
        }

        return new self(
            $feel,
            $is(Action::Angle),
            $is(Action::Horizon) && !$is(Action::Angle),
            $is(Action::HeadingSteering),
            $set->number('angle.full_tilt_deg', 50),
            $is(Action::Angle) ? $set->number('angle.strength_per_s', 5) : $set->number('horizon.back_per_s', 5),
            $set->number('horizon.level_until_pct', 70) / 100,
            $set->flag('angle.throttle_lift'),
        );
    }

    /**
     * As when the craft flies by itself: level, whatever the levers say.
     *
     * @param list<Feel> $feel
     */
    public static function level(SettingSet $set, array $feel): self
    {
        return new self(
            $feel,
            true,
            false,
            false,
            $set->number('angle.full_tilt_deg', 50),
            $set->number('angle.strength_per_s', 5),
            1.0,
            false,
        );
    }

    /**
     * @param array{float, float, float} $sticks roll, pitch, yaw, −1 to 1
     * @param array{float, float, float} $lean   roll, pitch and heading since take-off, deg
     *
     * @return array{float, float, float} wanted rates, deg/s
     */
    public function rates(array $sticks, array $lean): array
    {
        [$roll, $pitch, $yaw] = $sticks;
        if ($this->heading) {
            // Nose up lets it go backwards: as a push over the ground, forward is minus pitch.
            $turned = deg2rad($lean[2]);
            [$roll, $pitch] = [$roll * cos($turned) + $pitch * sin($turned), $pitch * cos($turned) - $roll * sin($turned)];
        }
        $rates = [$this->feel[0]->rate($roll), $this->feel[1]->rate($pitch), $this->feel[2]->rate($yaw)];
        $levels = $this->angle ? 1.0 : ($this->horizon ? max(0.0, 1 - max(abs($roll), abs($pitch)) / $this->levelUntil) : 0.0);
        foreach ($levels > 0 ? [$roll, $pitch] : [] as $axis => $stick) {
            $full = $this->feel[$axis]->full();
            $back = max(-$full, min($full, $this->strength * ($stick * $this->fullTiltDeg - $lean[$axis])));
            $rates[$axis] = $levels * $back + (1 - $levels) * $rates[$axis];
        }

        return $rates;
    }

    /** @param array{float, float, float} $lean deg */
    public function throttle(float $pct, array $lean): float
    {
        $up = cos(deg2rad($lean[0])) * cos(deg2rad($lean[1]));

        return $this->lifts && $this->angle && $up > 0 ? min(100.0, $pct * min(self::MOST_LIFT, 1 / $up)) : $pct;
    }

    /**
     * As when the craft leans where the firmware wants it to.
     *
     * @param array{float, float}        $tilt    roll and pitch, deg
     * @param float                      $turnDps to the right
     * @param array{float, float, float} $lean    deg
     *
     * @return array{float, float, float} wanted rates, deg/s
     */
    public function towards(array $tilt, float $turnDps, array $lean): array
    {
        $rates = [0.0, 0.0, $turnDps];
        foreach ($tilt as $axis => $deg) {
            $full = $this->feel[$axis]->full();
            $rates[$axis] = max(-$full, min($full, $this->strength * ($deg - $lean[$axis])));
        }

        return $rates;
    }

    /** Throttle that lifts as much leaned as it does level, whatever the settings say of sticks. */
    public static function lifted(float $pct, float $tiltDeg): float
    {
        $up = cos(deg2rad($tiltDeg));

        return $up > 0 ? min(100.0, $pct * min(self::MOST_LIFT, 1 / $up)) : $pct;
    }
}
