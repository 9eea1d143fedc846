<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

use Ortholex\Core\Fact\Code;

/** What is known of an ESC, to be put into words. */
enum EscFact: string implements Code
{
    case Hardware = 'esc_is.hardware';
}
