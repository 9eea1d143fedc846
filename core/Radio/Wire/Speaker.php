<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

/** Who speaks on a wire. */
enum Speaker: string
{
    case Sbus = 'sbus';
    case Crsf = 'crsf';
    case Ppm = 'ppm';
    case Nmea = 'nmea';

    /** Something moves on the wire that is none of these. */
    case Unknown = 'unknown';

    case Silent = 'silent';

    public function isReceiver(): bool
    {
        return self::Sbus === $this || self::Crsf === $this || self::Ppm === $this;
    }
}
