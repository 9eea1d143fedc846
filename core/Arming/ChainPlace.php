<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

/** The links between a thumb and a prop, in their order. */
enum ChainPlace: string
{
    case Transmitter = 'transmitter';
    case Sticks = 'sticks';
    case Board = 'board';
    case Power = 'power';
    case Proofs = 'proofs';
    case Desk = 'desk';

    public static function of(Bar $bar): self
    {
        return match ($bar) {
            Bar::NoFrames, Bar::Failsafe => self::Transmitter,
            Bar::ThrottleHigh, Bar::OnSincePowerUp, Bar::NothingArms => self::Sticks,
            Bar::Tilted, Bar::GyroMoves, Bar::LevelUnknown, Bar::LoopOverload, Bar::NoFix, Bar::RestartDue => self::Board,
            Bar::PackLow => self::Power,
            Bar::Cable => self::Desk,
        };
    }
}
