<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** What was made of the bytes on a UART. */
enum Hearing: string
{
    case Silent = 'silent';
    case Rubbish = 'rubbish';
    case Understood = 'understood';
}
