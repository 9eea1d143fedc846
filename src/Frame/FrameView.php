<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\Layout;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Airframe\MotorPlace;
use Ortholex\Core\Airframe\Mounting;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;

/** What sheet 14 shows. */
final readonly class FrameView
{
    private const REACH = 105.0;
    private const HALF_HEIGHT = 160.0;

    /**
     * @param array{float, float, float}           $set     mounting as the craft has it, roll, pitch, yaw in deg
     * @param array<string, bool>                  $shown   pose => taken
     * @param list<Setting>                        $fields  settings chosen here
     * @param Mixer|null                           $mixer   null when the motors cannot command every axis
     * @param bool                                 $broken  whether the staged arms make no frame
     * @param float                                $offDeg  angle between the found mounting and the one set
     */
    public function __construct(
        public Airframe $frame,
        public ?Mixer $mixer,
        public bool $broken,
        public Layout $layout,
        public array $set,
        public array $shown,
        public ?Mounting $found,
        public float $offDeg,
        public string $problem,
        public array $fields,
        public SettingSet $now,
        public SettingSet $staged,
        public bool $linked,
    ) {
    }

    /** @return list<array{float, float}> x forward and y right of each motor, m */
    public function motors(): array
    {
        return array_map(static fn (MotorPlace $m): array => [$m->x, $m->y], $this->frame->motors);
    }

    /** Radius of a prop's disc, m. */
    public function discM(): float
    {
        $mm = $this->staged['props.diameter_mm'] ?? ($this->now['props.diameter_mm'] ?? 0);

        return (is_numeric($mm) ? (float) $mm : 0.0) / 2000;
    }

    /** Units of the drawing from the middle to the farthest motor, so that the discs fit as well. */
    public function reach(): float
    {
        $far = max(0.02, ...array_map(static fn (MotorPlace $m): float => max(abs($m->x), abs($m->y)), $this->frame->motors));

        return min(self::REACH, self::HALF_HEIGHT / (1 + $this->discM() / $far));
    }

    public function isCustom(): bool
    {
        return Layout::Custom === $this->layout;
    }

    /** Whether a mounting is staged. */
    public function mountingStaged(): bool
    {
        foreach (Axis::cases() as $axis) {
            if ($this->staged->has("mounting.{$axis->value}_deg")) {
                return true;
            }
        }

        return false;
    }

    /** Whether the board lies with its underside up, as set. */
    public function underside(): bool
    {
        return 180.0 === abs($this->set[0]);
    }

    /** Thrust arrow of a motor for a full command of an axis, as a path from the motor; 26 units for all it has. */
    public function arrow(int $motor, int $axis): string
    {
        $share = $this->mixer->shares[$motor][$axis] ?? 0.0;
        $tip = $share > 0 ? 6 : -6;

        return 'v'.round(-26 * $share, 1).(abs($share) > 0.1 ? "m-4 {$tip}l4 ".-$tip."l4 $tip" : '');
    }

    /** @return list<string> places that a custom frame has no motor at */
    public function free(): array
    {
        return array_values(array_diff(Place::names(), $this->frame->places()));
    }

    /** Level as set, deg. */
    public function level(string $axis): float
    {
        $value = $this->staged["level.{$axis}_deg"] ?? ($this->now["level.{$axis}_deg"] ?? 0.0);

        return is_numeric($value) ? (float) $value : 0.0;
    }

    /** Whether the setting is so far from what was shown that the craft would fly wrong. */
    public function isOff(): bool
    {
        return $this->offDeg > 5.0;
    }

    /** Whether there is anything to stage. */
    public function differs(): bool
    {
        return $this->offDeg > 0.5;
    }

    /** The found rotation in plain words. */
    public function inWords(): string
    {
        if (null === $this->found) {
            return '';
        }
        $words = [];
        $turn = static fn (float $deg): string => rtrim(rtrim(\sprintf('%.1f', abs($deg)), '0'), '.').'°';
        if (180.0 === abs($this->found->rollDeg)) {
            $words[] = 'upside down';
        } elseif (abs($this->found->rollDeg) > 0.05) {
            $words[] = 'rolled '.$turn($this->found->rollDeg).' to the '.($this->found->rollDeg > 0 ? 'right' : 'left');
        }
        if (abs($this->found->pitchDeg) > 0.05) {
            $words[] = 'nose '.($this->found->pitchDeg > 0 ? 'up' : 'down').' '.$turn($this->found->pitchDeg);
        }
        if (abs($this->found->yawDeg) > 0.05) {
            $words[] =
                180.0 === abs($this->found->yawDeg)
                    ? 'facing the tail'
                    : 'turned '.$turn($this->found->yawDeg).' to the '.($this->found->yawDeg > 0 ? 'right' : 'left');
        }

        return [] === $words ? 'straight, facing the nose' : implode(', ', $words);
    }
}
