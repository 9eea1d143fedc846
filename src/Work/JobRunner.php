<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Storage\DiskTrouble;
use Ortholex\App\Words\Words;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/** Runs one job in this process, start to end. */
final readonly class JobRunner
{
    /** @param iterable<JobHandler> $handlers */
    public function __construct(
        #[TaggedIterator(JobHandler::class)] private iterable $handlers,
        private EntityManagerInterface $entities,
        private CraftLocks $locks,
        private Jobs $jobs,
        private Words $words,
        private LoggerInterface $log,
        private string $dataFolder,
    ) {
    }

    public function run(int $jobId): void
    {
        $job = $this->entities->find(Job::class, $jobId);
        if (null === $job || JobState::Waiting !== $job->state) {
            return;
        }
        if (!$this->locks->hold($job->craft)) {
            $this->end($job, JobState::Failed, 'Other work on this craft is still under way. Try again when it is done.', []);

            return;
        }
        try {
            $job->state = JobState::Running;
            $job->pid = (int) getmypid();
            $job->startedAt = $job->heartbeatAt = microtime(true);
            $this->entities->flush();
            foreach ($this->handlers as $handler) {
                if ($handler->kind() === $job->kind) {
                    $result = $handler->run($job, new JobProgress($this->entities->getConnection(), $jobId));
                    $half = $result[JobHandler::HALF] ?? null;
                    $this->end($job, \is_string($half) ? JobState::HalfDone : JobState::Done, \is_string($half) ? $half : '', $result);

                    return;
                }
            }
            $this->end($job, JobState::Failed, "Nothing here knows how to do “{$job->kind}”.", []);
        } catch (JobCancelled $e) {
            $this->end($job, JobState::Cancelled, $this->words->ofProblem($e), []);
        } catch (\Throwable $e) {
            // What the person is told is short; what a developer needs stands in the log.
            $this->log->error('Job {id} “{title}” of {craft} failed.', [
                'id' => $job->id,
                'title' => $job->title,
                'craft' => $job->craft->slug,
                'exception' => $e,
            ]);
            $said = DiskTrouble::behind($e, $this->dataFolder)->words ?? $this->words->ofProblem($e);
            $this->end($job, JobState::Failed, $said, []);
        } finally {
            $this->locks->release($job->craft);
            $this->jobs->next($job->craft);
        }
    }

    /** @param array<string, mixed> $result */
    private function end(Job $job, JobState $state, string $message, array $result): void
    {
        $this->entities
            ->getConnection()
            ->executeStatement('UPDATE job SET state = ?, message = ?, result = ?, ended_at = ?, progress = ? WHERE id = ?', [
                $state->value,
                $message,
                json_encode($result, \JSON_THROW_ON_ERROR),
                microtime(true),
                JobState::Done === $state
                    ? 1.0
                    : $this->entities->getConnection()->fetchOne('SELECT progress FROM job WHERE id = ?', [$job->id]),
                $job->id,
            ]);
    }
}
