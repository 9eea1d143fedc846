<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Recorder;

use Ortholex\App\Link\LinkService;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Recorder\RecordingError;

/** Brings recordings in, oldest first. Broken off, it goes on where it was. */
final readonly class FetchHandler implements JobHandler
{
    public function __construct(private Fetched $fetched, private LinkService $links, private Words $words)
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
        $failed = [];
        foreach ($numbers as $i => $number) {
            try {
                $log = $this->fetched->bring($job->craft, $number, $progress->part($i / \count($numbers), 1 / \count($numbers)));
            } catch (RecordingError|LogError $e) {
                // One that is torn beyond reading holds up none of the others.
                $failed[] = "Recording $number: ".$this->words->ofProblem($e);
            }
        }
        $said = implode(' ', $failed);
        if (null === $log) {
            return '' === $said ? [] : throw LogError::of($said);
        }

        return ['log' => $log->id, 'code' => $log->code] + ('' === $said ? [] : [self::HALF => $said]);
    }
}
