<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\FlightLog\LogError;

/** Looks at a long log, or a passage of it, away from the page that asked. */
final readonly class AnalyseHandler implements JobHandler
{
    public function __construct(private LogBook $book, private AnalysisStore $analyses)
    {
    }

    public function kind(): string
    {
        return 'analyse';
    }

    public function route(): string
    {
        return 'logs';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $id = $job->parameters['log'] ?? null;
        $named = $job->parameters['passage'] ?? null;
        $log = $this->book->one($job->craft, \is_int($id) ? $id : 0, true);
        $passage = $this->book->passage($log, \is_int($named) ? $named : 0);
        if (null !== $named && null === $passage) {
            throw LogError::of('The passage was dropped meanwhile.');
        }
        $progress->at(0.1, 'looking at '.$log->code);
        // Two tabs may have asked for it.
        if (!$this->analyses->has($log, $passage)) {
            $this->analyses->compute($log, $passage);
        }

        return ['log' => $log->id, 'code' => $log->code];
    }
}
