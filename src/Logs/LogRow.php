<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Fact\Fact;

/** A log in a list, with what its analysis says in short. */
final readonly class LogRow
{
    /**
     * @param array<string, ?float>                        $peaks   of the step by axis
     * @param list<Fact>                                   $grave   what is wrong in it
     * @param array<string, array{from: mixed, to: mixed}> $changed settings that differ from the log before
     */
    public function __construct(public Log $log, public array $peaks, public array $changed, public array $grave)
    {
    }
}
