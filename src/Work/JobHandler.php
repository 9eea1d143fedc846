<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

/** Does one kind of long work. */
interface JobHandler
{
    public function kind(): string;

    /**
     * @return array<string, mixed> the result kept with the job
     *
     * @throws JobCancelled when the user asked for it
     * @throws \Throwable   with a message for the user; the job then shows as failed
     */
    public function run(Job $job, JobProgress $progress): array;
}
