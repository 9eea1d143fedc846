<?php

declare(strict_types=1);

namespace Ortholex\Core\Proof;

/** What is proved once on the craft itself, and holds while what it rested on stays as it was. */
enum Proved: string
{
    /** Which motor hangs on which pad, each turned alone. */
    case SpinCheck = 'spin_check';

    /** Each turns the way its prop wants. */
    case Directions = 'directions';

    /** Which way the board is mounted, from poses. */
    case Mounting = 'mounting';
    case Level = 'level';

    /** How far the sticks reach. */
    case Spans = 'spans';

    /** What becomes of a lost link, tried. */
    case Rehearsal = 'rehearsal';

    /** Voltage against a meter. */
    case Voltage = 'voltage';

    /** The props themselves, looked at: whole, tight, the right way up. */
    case Props = 'props';

    /** The position receiver answers and finds a fix. */
    case Position = 'position';

    /** Under which name its words stand. */
    public function called(): string
    {
        return "proved_$this->value";
    }

    /** @return list<string> beginnings of the settings it rests on */
    public function restsOn(): array
    {
        return match ($this) {
            self::SpinCheck => ['pad.', 'frame.layout'],
            self::Directions => ['pad.', 'props.direction'],
            self::Mounting => ['mounting.'],
            self::Level => ['mounting.', 'level.'],
            self::Spans => ['receiver.', 'channel.'],
            self::Rehearsal => ['receiver.', 'channel.throttle.', 'link_loss.', 'action.arm.'],
            self::Voltage => ['pack.divider_scale', 'pack.cells'],
            self::Props => ['props.'],
            self::Position => ['location.'],
        };
    }

    /** Whether the builder says that it is done, as no sheet can tell. */
    public function isSaid(): bool
    {
        return self::Props === $this || self::Position === $this;
    }
}
