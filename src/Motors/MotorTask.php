<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

/** What is done on sheet 15; the value stands in its address. */
enum MotorTask: string
{
    case Spin = 'spin';
    case Rise = 'rise';
    case Feedback = 'feedback';
    case Teach = 'teach';

    public function title(): string
    {
        return match ($this) {
            self::Spin => 'Spin check',
            self::Rise => 'Slow rise',
            self::Feedback => 'Rpm feedback',
            self::Teach => 'ESC calibration',
        };
    }
}
