<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** What a solder point is for. */
enum PadKind: string
{
    case Transmits = 'transmits';
    case Receives = 'receives';

    /** Both ways on one wire. */
    case Both = 'both_ways';

    case Ground = 'ground';
    case Power = 'power';

    public function isData(): bool
    {
        return self::Ground !== $this && self::Power !== $this;
    }
}
