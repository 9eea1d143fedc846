<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

enum Parity: string
{
    case None = 'none';
    case Even = 'even';
}
