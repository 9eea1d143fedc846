<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

/** What the front of a log shows. */
final readonly class LogFrontView
{
    /** @param array<mixed> $report of the analysis */
    public function __construct(public Log $log, public array $report)
    {
    }

    /** How many findings are grave. */
    public function wrong(): int
    {
        return \count(array_filter(Dig::map($this->report, 'findings'), static fn (mixed $f): bool => \is_array($f) && 'wrong' === ($f['weight'] ?? '')));
    }
}
