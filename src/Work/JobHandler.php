<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Does one kind of long work. */
#[AutoconfigureTag]
interface JobHandler
{
    /** In a result: what is to be said where only half of it was done. */
    public const HALF = 'half';

    public function kind(): string;

    /** Of the page where this work is begun; takes the craft's slug. */
    public function route(): string;

    /**
     * @return array<string, mixed> the result kept with the job
     *
     * @throws JobCancelled when the user asked for it
     * @throws \Throwable   with a message for the user; the job then shows as failed
     */
    public function run(Job $job, JobProgress $progress): array;
}
