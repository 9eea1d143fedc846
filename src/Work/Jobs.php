<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\ParameterType;
use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Work\Process\ConsoleCommand;
use Ortholex\Core\Time\SteadyClock;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Process\Process;

/** Starts, watches and cancels long work. */
final readonly class Jobs
{
    private const STALE_S = 15.0;

    /** Each is a process that reckons: more at once would only keep one another waiting, and the pages too. */
    private const MOST_AT_ONCE = 8;

    private const MOST_QUEUED = 40;

    /** So many are told of at once: all that are open, and of the others first what ended without its end. */
    private const MOST_TOLD = self::MOST_QUEUED + 20;

    public function __construct(
        private EntityManagerInterface $entities,
        private CraftLocks $locks,
        private string $projectFolder,
        private SteadyClock $clock,
    ) {
    }

    /**
     * Begins it, or puts it behind what is under way where both can wait for one another (see Job::IN_TURN).
     *
     * @param array<string, mixed> $parameters
     *
     * @throws ConflictHttpException when the craft is already busy with what nothing can wait behind, or with this very work
     */
    public function start(Craft $craft, string $kind, string $title, array $parameters): Job
    {
        $open = array_values(array_filter($this->of($craft), static fn (Job $j): bool => $j->isOpen()));
        foreach ($open as $other) {
            $waits = \in_array($kind, Job::IN_TURN, true) && \in_array($other->kind, Job::IN_TURN, true);
            $twice = $other->kind === $kind && $other->parameters === $parameters;
            // Nobody wants two flights ahead: a second press is a second press.
            if (!$waits || $twice || ('fly' === $kind && 'fly' === $other->kind && JobState::Queued === $other->state)) {
                throw new ConflictHttpException("“{$other->title}” is still under way. Wait for it, or cancel it.");
            }
        }
        $this->demandRoom($craft, \count($open));
        $job = new Job($craft, $kind, $title, $parameters, $this->clock->now());
        if ([] !== $open) {
            $job->state = JobState::Queued;
            $job->doing = "waits for “{$open[0]->title}”";
        }
        $this->entities->persist($job);
        $this->entities->flush();
        if ([] === $open) {
            $this->launch((int) $job->id);
        }

        return $job;
    }

    /** @throws ConflictHttpException where as much is under way as this machine should take */
    private function demandRoom(Craft $craft, int $here): void
    {
        $count = fn (string $whose, JobState ...$states): int => self::number(
            $this->entities->getConnection()->fetchOne(
                "SELECT COUNT(*) FROM job WHERE craft_id $whose ? AND state IN (?)",
                [$craft->id, array_column($states, 'value')],
                [ParameterType::INTEGER, ArrayParameterType::STRING],
            ),
        );
        $waiting = $count('=', JobState::Queued);
        if ($waiting >= self::MOST_QUEUED) {
            throw new ConflictHttpException("$waiting pieces of work of $craft->name wait already. Let some of them end first.");
        }
        $elsewhere = $here > 0 ? 0 : $count('<>', JobState::Waiting, JobState::Running);
        if ($elsewhere >= self::MOST_AT_ONCE) {
            throw new ConflictHttpException("Work on $elsewhere other craft is under way. Wait for one of them, or cancel it there.");
        }
    }

    private static function number(mixed $told): int
    {
        return is_numeric($told) ? (int) $told : 0;
    }

    /** Begins what has waited longest, once nothing else is under way. Called when work ends, and by who looks after some was killed. */
    public function next(Craft $craft): void
    {
        $db = $this->entities->getConnection();
        $under = $db->fetchOne('SELECT id FROM job WHERE craft_id = ? AND state IN (?, ?) LIMIT 1', [
            $craft->id,
            JobState::Waiting->value,
            JobState::Running->value,
        ]);
        $next = $db->fetchOne('SELECT id FROM job WHERE craft_id = ? AND state = ? ORDER BY id LIMIT 1', [
            $craft->id,
            JobState::Queued->value,
        ]);
        if (false !== $under || !is_numeric($next)) {
            return;
        }
        // By one of those who look only.
        $mine = $db->executeStatement('UPDATE job SET state = ?, asked_at = ?, doing = ? WHERE id = ? AND state = ?', [
            JobState::Waiting->value,
            $this->clock->now(),
            'waiting to start',
            (int) $next,
            JobState::Queued->value,
        ]);
        if (1 === $mine) {
            $this->launch((int) $next);
        }
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
        if (JobState::Queued === $job->state) {
            $job->state = JobState::Cancelled;
            $job->endedAt = $this->clock->now();
            $job->message = 'Cancelled before it began.';
        } elseif ($job->isOpen()) {
            $job->cancelAsked = true;
        }
        $this->entities->flush();
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
        $open = array_column(JobState::open(), 'value');
        $unfinished = array_column(array_filter(JobState::cases(), static fn (JobState $s): bool => $s->isUnfinished()), 'value');
        // Asked with every look at the bench: mostly there are none, and then one plain query tells.
        $ids = $this->entities
            ->getConnection()
            ->fetchFirstColumn(
                'SELECT id FROM job WHERE craft_id = ? AND (seen = 0 OR state IN (?))
                ORDER BY state IN (?) DESC, state IN (?) DESC, id DESC LIMIT '.self::MOST_TOLD,
                [$craft->id, $open, $open, $unfinished],
                [ParameterType::INTEGER, ...array_fill(0, 3, ArrayParameterType::STRING)],
            );
        if ([] === $ids) {
            return [];
        }
        $jobs = $this->entities->getRepository(Job::class)->findBy(['id' => $ids], ['id' => 'DESC']);
        foreach ($jobs as $job) {
            $this->watch($job);
        }
        $this->queued($craft, $jobs);

        return $jobs;
    }

    /** Whether another process brings logs of this craft in, or looks at one: what it does need not be done here once more. */
    public function readsLogs(Craft $craft): bool
    {
        return false !== $this->entities->getConnection()->fetchOne(
            'SELECT 1 FROM job WHERE craft_id = ? AND state = ? AND pid <> ? AND kind IN (?) LIMIT 1',
            [$craft->id, JobState::Running->value, getmypid(), Job::READS_LOGS],
            [3 => ArrayParameterType::STRING],
        );
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

    /** @param list<Job> $jobs those that wait behind work that was killed go on now */
    private function queued(Craft $craft, array $jobs): void
    {
        $open = array_filter($jobs, static fn (Job $j): bool => $j->isOpen());
        $queued = array_filter($open, static fn (Job $j): bool => JobState::Queued === $j->state);
        if ([] === $queued || \count($open) > \count($queued)) {
            return;
        }
        $this->next($craft);
        foreach ($queued as $job) {
            $this->entities->refresh($job);
        }
    }

    /** A job whose process is gone is interrupted, whatever its row still says. */
    private function watch(Job $job): void
    {
        if (!$job->isOpen() || JobState::Queued === $job->state) {
            return;
        }
        $now = $this->clock->now();
        // A job holds its craft for as long as its process lives, however long it says nothing.
        $gone = null !== $job->pid
            ? !posix_kill($job->pid, 0) || !$this->locks->isHeld($job->craft)
            : $now - $job->askedAt > self::STALE_S;
        if ($gone) {
            $this->entities->refresh($job);
            if ($job->isOpen()) {
                $job->state = JobState::Interrupted;
                $job->endedAt = $now;
                $job->message = 'Its process ended unexpectedly, at “'.$job->doing.'”. It can be started again.';
                $this->entities->flush();
            }
        }
    }

    private function launch(int $job): void
    {
        // All that was inherited is closed: the server can restart while the job goes on, and no page that another connection of this
        // worker asks for stays open until the job ends. setsid lets it outlive the server.
        $script = 'for fd in /proc/$$/fd/*; do n=${fd##*/}; [ "$n" -le 2 ] || eval "exec $n>&-"; done; exec setsid "$@" &';
        $words = ConsoleCommand::words($this->projectFolder, 'app:job', (string) $job);
        $process = new Process(['bash', '-c', $script, 'bash', ...$words], $this->projectFolder);
        $process->disableOutput();
        $process->run();
    }
}
