<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Filters\WhatIf;

/** Another log, behind the filters that it was itself flown with. */
final readonly class BesideLog
{
    public function __construct(public Log $log, public WhatIf $of)
    {
    }
}
