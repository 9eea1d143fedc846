<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\Passage;

/** A long log whose analysis is not at hand: too much for a page to wait for, so a job has to do it. */
final class NotYetAnalysed extends \RuntimeException
{
    public function __construct(public readonly Log $log, public readonly ?Passage $passage)
    {
        parent::__construct("$log->code is still being looked at.");
    }
}
