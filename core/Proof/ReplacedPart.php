<?php

declare(strict_types=1);

namespace Ortholex\Core\Proof;

/** A part of a craft that was replaced, and what must be proved again for it. */
enum ReplacedPart: string
{
    case Motor = 'motor';
    case Esc = 'esc';
    case Prop = 'prop';
    case Board = 'board';
    case Receiver = 'receiver';
    case Arm = 'frame_arm';
    case Position = 'position_receiver';
    case PackLead = 'pack_lead';

    /** Under which name its words stand. */
    public function called(): string
    {
        return "replaced_$this->value";
    }

    /** @return list<Proved> */
    public function opens(): array
    {
        return match ($this) {
            self::Motor => [Proved::SpinCheck, Proved::Directions, Proved::Props],
            self::Esc => [Proved::SpinCheck, Proved::Directions],
            self::Prop => [Proved::Props],
            self::Board => [
                Proved::Mounting,
                Proved::Level,
                Proved::SpinCheck,
                Proved::Directions,
                Proved::Spans,
                Proved::Rehearsal,
                Proved::Voltage,
            ],
            self::Receiver => [Proved::Spans, Proved::Rehearsal],
            self::Arm => [Proved::Level, Proved::Props],
            self::Position => [Proved::Position],
            self::PackLead => [Proved::Voltage],
        };
    }
}
