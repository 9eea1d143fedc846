<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** What the lamp of a receiver shows. */
enum ReceiverLight: string
{
    /** No power. */
    case Dark = 'dark';

    /** Power, and no transmitter that it knows. */
    case Slow = 'slow';

    /** It waits to be bound. */
    case Fast = 'fast';

    case Steady = 'steady';
}
