<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Work\Process\ConsoleCommand;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Process\Process;

/** Starts, watches and cancels long work. */
final readonly class Jobs
{
    private const STALE_S = 15.0;

    public function __construct(
        private EntityManagerInterface $entities,
        private CraftLocks $locks,
        private string $projectFolder,
    ) {
    }

    /**
     * @param array<string, mixed> $parameters
     *
     * @throws ConflictHttpException when the craft is already busy
     */
    public function start(Craft $craft, string $kind, string $title, array $parameters): Job
    {
        foreach ($this->of($craft) as $other) {
            if ($other->isOpen()) {
                throw new ConflictHttpException("“{$other->title}” is still under way. Wait for it, or cancel it.");
            }
        }
        $job = new Job($craft, $kind, $title, $parameters, microtime(true));
        $this->entities->persist($job);
        $this->entities->flush();
        $this->launch($job);

        return $job;
    }

    /** Of this kind of work only the newest counts: how earlier ones ended is put aside, as it has been answered by this one. */
    public function answers(Job $job): void
    {
        $this->entities
            ->createQuery('UPDATE '.Job::class.' j SET j.seen = true WHERE j.craft = :c AND j.kind = :k AND j.id < :id')
            ->execute(['c' => $job->craft, 'k' => $job->kind, 'id' => $job->id]);
    }

    /** Starts an interrupted, failed or cancelled job's order again, as a new job. */
    public function again(Job $job): Job
    {
        $job->seen = true;

        return $this->start($job->craft, $job->kind, $job->title, $job->parameters);
    }

    public function cancel(Job $job): void
    {
        if ($job->isOpen()) {
            $job->cancelAsked = true;
            $this->entities->flush();
        }
    }

    public function find(int $id): ?Job
    {
        $job = $this->entities->find(Job::class, $id);
        if (null !== $job) {
            $this->watch($job);
        }

        return $job;
    }

    /** @return list<Job> open ones and those whose end was not yet seen, newest first */
    public function of(Craft $craft): array
    {
        // Asked with every look at the bench: mostly there are none, and then one plain query tells.
        if (
            false ===
            $this->entities
                ->getConnection()
                ->fetchOne('SELECT id FROM job WHERE craft_id = ? AND (seen = 0 OR state IN (?, ?)) LIMIT 1', [
                    $craft->id,
                    JobState::Waiting->value,
                    JobState::Running->value,
                ])
        ) {
            return [];
        }
        /** @var list<Job> $jobs */
        $jobs = $this->entities
            ->createQuery(
                'SELECT j FROM '.Job::class.' j WHERE j.craft = :c AND (j.state IN (:open) OR j.seen = false) ORDER BY j.id DESC',
            )
            ->setParameter('c', $craft->id)
            ->setParameter('open', [JobState::Waiting->value, JobState::Running->value], ArrayParameterType::STRING)
            ->setMaxResults(6)
            ->getResult();
        foreach ($jobs as $job) {
            $this->watch($job);
        }

        return $jobs;
    }

    /** Whether open work has the link to itself, as a flash does. */
    public function holdsLink(Craft $craft): bool
    {
        foreach ($this->of($craft) as $job) {
            if ($job->isOpen() && \in_array($job->kind, Job::HOLD_LINK, true)) {
                return true;
            }
        }

        return false;
    }

    /** A job whose process is gone is interrupted, whatever its row still says. */
    private function watch(Job $job): void
    {
        if (!$job->isOpen()) {
            return;
        }
        $now = microtime(true);
        // A job holds its craft for as long as its process lives, however long it says nothing.
        $gone = null !== $job->pid
            ? !posix_kill($job->pid, 0) || !$this->locks->isHeld($job->craft)
            : $now - $job->askedAt > self::STALE_S;
        if ($gone) {
            $this->entities->refresh($job);
            if ($job->isOpen()) {
                $job->state = JobState::Interrupted;
                $job->endedAt = $now;
                $job->message = 'Its process ended without a word, at “'.$job->doing.'”. It can be started again.';
                $this->entities->flush();
            }
        }
    }

    private function launch(Job $job): void
    {
        // Closing what was inherited lets the server restart while the job goes on; setsid lets it outlive the server.
        $command =
            'exec 3>&- 4>&- 5>&- 6>&- 7>&- 8>&- 9>&-; exec setsid '.
            implode(
                ' ',
                array_map('escapeshellarg', ConsoleCommand::words($this->projectFolder, 'app:job', (string) $job->id)),
            ).
            ' </dev/null >/dev/null 2>&1 &';
        $process = Process::fromShellCommandline($command, $this->projectFolder);
        $process->disableOutput();
        $process->run();
    }
}
