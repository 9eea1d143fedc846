<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;

/** Brings in a log from disk. */
final readonly class ImportHandler implements JobHandler
{
    public function __construct(private LogImport $import)
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
        $log = $this->import->import($job->craft, $path, $name, $progress);
        @unlink($path);

        return ['log' => $log->id, 'code' => $log->code];
    }
}
