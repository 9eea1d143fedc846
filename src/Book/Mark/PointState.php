<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Mark;

/** How far one point of the work is. */
enum PointState: string
{
    case Done = 'done';
    case Open = 'open';

    /** It stops the craft. */
    case Blocked = 'blocked';

    public static function done(bool $is): self
    {
        return $is ? self::Done : self::Open;
    }
}
