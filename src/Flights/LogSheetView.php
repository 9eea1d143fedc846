<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

/** What sheets 52, 53 and 54 show: one log, perhaps another beside it, and the analyses of both. */
final readonly class LogSheetView
{
    /**
     * @param list<Log>                                               $logs   all, for the choice
     * @param array<mixed>                                            $report of $log
     * @param array<mixed>                                            $other  report of $beside
     * @param array<string, array{from: mixed, to: mixed}>            $changed settings between $beside and $log
     * @param list<Passage>                                           $passages of $log
     * @param Passage|null                                            $passage  that the analyses look at; the whole flight when null
     * @param list<ResponseFinding>                                   $findings
     */
    public function __construct(public array $logs, public ?Log $log, public ?Log $beside, public array $report, public array $other, public array $changed, public array $findings, public string $answer, public array $passages, public ?Passage $passage)
    {
    }
}
