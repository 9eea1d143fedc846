<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

/** What the front of a log shows. */
final readonly class LogFrontView
{
    /** What gets replaced on a craft. */
    public const PARTS = ['prop', 'motor', 'ESC', 'arm', 'frame', 'board', 'mount of the board', 'pack', 'receiver', 'wiring', 'other'];

    /**
     * @param array<mixed> $report of the analysis
     * @param list<string> $places of the craft's motors, in words
     */
    public function __construct(public Log $log, public array $report, public array $places)
    {
    }

    /** How many findings are grave. */
    public function wrong(): int
    {
        return \count(array_filter(Dig::map($this->report, 'findings'), static fn (mixed $f): bool => \is_array($f) && 'wrong' === ($f['weight'] ?? '')));
    }
}
