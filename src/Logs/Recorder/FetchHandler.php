<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Recorder;

use Ortholex\App\Link\LinkService;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;

/** Brings recordings in, oldest first. Broken off, it goes on where it was. */
final readonly class FetchHandler implements JobHandler
{
    public function __construct(private Fetched $fetched, private LinkService $links)
    {
    }

    public function kind(): string
    {
        return 'fetch';
    }

    public function route(): string
    {
        return 'logs';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $this->links->demandLinked($job->craft);
        $given = $job->parameters['recordings'] ?? null;
        $numbers = array_values(array_filter(\is_array($given) ? $given : [], is_int(...)));
        $log = null;
        foreach ($numbers as $i => $number) {
            $log = $this->fetched->bring($job->craft, $number, $progress->part($i / \count($numbers), 1 / \count($numbers)));
        }

        return null === $log ? [] : ['log' => $log->id, 'code' => $log->code];
    }
}
