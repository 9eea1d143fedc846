<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

/** What forbids arming; a board tells them as a mask. */
enum Bar: int
{
    case NoFrames = 1;
    case Failsafe = 2;
    case ThrottleHigh = 4;

    /** The arm action was on when power came, or when the link came back: it must be seen off once. */
    case OnSincePowerUp = 8;

    case Tilted = 16;

    /** The cable is in: on the desk nothing arms, but for a rehearsal with the props declared off. */
    case Cable = 32;

    /** Neither a lever nor the stick is told to arm. */
    case NothingArms = 64;

    /** The gyro turns: its rest is not known yet. */
    case GyroMoves = 128;

    /** Level was never calibrated, or the mounting was changed since. */
    case LevelUnknown = 256;

    /** The loop takes more time than there is. */
    case LoopOverload = 512;

    /** No pack, or one that is below what a flight may begin with. */
    case PackLow = 1024;

    case NoFix = 2048;

    /** A setting waits for a restart. */
    case RestartDue = 4096;

    /** @return list<self> */
    public static function in(int $mask): array
    {
        return array_values(array_filter(self::cases(), static fn (self $b): bool => 0 !== ($mask & $b->value)));
    }

    /** @param list<self> $bars */
    public static function mask(array $bars): int
    {
        return array_reduce($bars, static fn (int $mask, self $b): int => $mask | $b->value, 0);
    }

    /** The setting that says whether it forbids or warns; null where it always forbids. */
    public function setting(): ?string
    {
        return match ($this) {
            self::Tilted => 'interlock.if_tilted',
            self::LevelUnknown => 'interlock.if_level_unknown',
            self::LoopOverload => 'interlock.if_overloaded',
            self::PackLow => 'interlock.if_pack_low',
            self::NoFix => 'interlock.if_no_fix',
            default => null,
        };
    }
}
