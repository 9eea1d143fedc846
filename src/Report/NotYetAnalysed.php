<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\Passage;

/** A log whose analysis is not at hand and too much for a page to wait for: a job has to do it, or is at it. */
final class NotYetAnalysed extends \RuntimeException
{
    public function __construct(public readonly Log $log, public readonly ?Passage $passage, public readonly bool $underWay)
    {
        parent::__construct("$log->code is still being looked at.");
    }
}
