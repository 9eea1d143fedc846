<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Switches\Action;

/** What a board knows of itself when it is asked to arm, and what of that forbids it. */
final readonly class Condition
{
    /** Faster than this is no rest, deg/s. */
    private const STILL_DPS = 3.0;

    /** Of the time that the loop has, %. */
    private const MOST_LOAD_PCT = 95.0;

    /**
     * @param bool       $frames     whether frames come
     * @param bool       $failsafe   whether the receiver says that it lost its transmitter
     * @param float      $throttle   0 to 1
     * @param float      $tiltDeg    from level
     * @param float|null $gyroDps    how fast it turns; null where nobody looked
     * @param bool       $level      whether level was calibrated as it is mounted now
     * @param float      $loadPct    loop load
     * @param float|null $cellV      at rest; null without a pack
     * @param bool       $fix        position is known well enough to be home
     * @param bool       $cable      and no rehearsal is under way
     */
    public function __construct(
        public bool $frames,
        public bool $failsafe,
        public float $throttle,
        public float $tiltDeg,
        public ?float $gyroDps,
        public bool $level,
        public float $loadPct,
        public ?float $cellV,
        public bool $fix,
        public bool $restartDue,
        public bool $cable,
    ) {
    }

    /** @return list<Bar> all that is unmet, whether it forbids or warns */
    public function unmet(SettingSet $set): array
    {
        $nothingArms = ArmedBy::Stick !== ArmedBy::in($set) && '' === $set->text(Action::Arm->setting());
        $unmet = [];
        foreach (
            [
                [Bar::NoFrames, !$this->frames],
                [Bar::Failsafe, $this->failsafe],
                [Bar::ThrottleHigh, $this->frames && $this->throttle > Arming::LOW],
                [Bar::Tilted, $this->tiltDeg > $set->number('interlock.most_tilt_deg', 25)],
                [Bar::Cable, $this->cable],
                [Bar::NothingArms, $nothingArms],
                [Bar::GyroMoves, null !== $this->gyroDps && $this->gyroDps > self::STILL_DPS],
                [Bar::LevelUnknown, !$this->level],
                [Bar::LoopOverload, $this->loadPct > self::MOST_LOAD_PCT],
                [Bar::PackLow, null === $this->cellV || $this->cellV < $set->number('pack.warn_cell_v', 3.6)],
                [Bar::NoFix, $set->flag('location.enabled') && !$this->fix],
                [Bar::RestartDue, $this->restartDue],
            ] as [$bar, $is]
        ) {
            if ($is) {
                $unmet[] = $bar;
            }
        }

        return $unmet;
    }

    /**
     * Of what is unmet, what forbids.
     *
     * @param list<Bar> $unmet
     *
     * @return list<Bar>
     */
    public static function forbidding(array $unmet, SettingSet $set): array
    {
        return array_values(array_filter($unmet, static function (Bar $bar) use ($set): bool {
            $setting = $bar->setting();

            return null === $setting || IfUnmet::Warn->value !== $set->text($setting, self::usual($bar)->value);
        }));
    }

    /** What each does where nobody chose. */
    public static function usual(Bar $bar): IfUnmet
    {
        return Bar::LevelUnknown === $bar ? IfUnmet::Warn : IfUnmet::Forbid;
    }
}
