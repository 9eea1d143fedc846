<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Ortholex\App\FlightLog\KeptFiles;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;

/** Brings in a log from disk. */
final readonly class ImportHandler implements JobHandler
{
    public function __construct(private LogImport $import, private KeptFiles $kept, private LogBook $book)
    {
    }

    public function kind(): string
    {
        return 'import';
    }

    public function route(): string
    {
        return 'logs';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $path = \is_string($job->parameters['path'] ?? null) ? $job->parameters['path'] : '';
        $name = \is_string($job->parameters['name'] ?? null) ? $job->parameters['name'] : 'a log';
        $again = \is_int($job->parameters['again'] ?? null) ? $this->book->one($job->craft, $job->parameters['again'], true) : null;
        $log = $this->import->import($job->craft, $path, $name, $progress, instead: $again);
        $this->kept->keep($path, $log);
        @unlink($path);

        return ['log' => $log->id, 'code' => $log->code];
    }
}
