<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** Where on a craft a motor can sit. An imported log may have motors by number until their places are given. */
enum Place: string
{
    case FrontRight = 'front_right';
    case RearRight = 'rear_right';
    case RearLeft = 'rear_left';
    case FrontLeft = 'front_left';
    case Right = 'right';
    case Left = 'left';
    case Front = 'front';
    case Rear = 'rear';

    /** @return list<string> */
    public static function names(): array
    {
        return array_column(self::cases(), 'value');
    }

    /** −1 behind the middle, 0 beside it, 1 ahead of it. */
    public function forward(): int
    {
        return match ($this) {
            self::FrontRight, self::FrontLeft, self::Front => 1,
            self::RearRight, self::RearLeft, self::Rear => -1,
            self::Right, self::Left => 0,
        };
    }

    /** −1 left of the middle, 0 in line with it, 1 right of it. */
    public function right(): int
    {
        return match ($this) {
            self::FrontRight, self::RearRight, self::Right => 1,
            self::FrontLeft, self::RearLeft, self::Left => -1,
            self::Front, self::Rear => 0,
        };
    }
}
