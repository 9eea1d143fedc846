<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Work;

use Doctrine\DBAL\DriverManager;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Work\CraftLocks;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\Jobs;
use Ortholex\App\Work\JobState;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Lock\LockFactory;
use Symfony\Component\Lock\Store\FlockStore;
use Symfony\Component\Process\Process;

/** What is said of long work is so: it lives while its process does, ends when that ends, and can be begun again where it says so. */
final class TruthOfJobsTest extends AppCase
{
    private function refused(): string
    {
        try {
            self::getContainer()->get(Jobs::class)->start($this->craft(), 'analyse', 'Look at it', ['log' => 5]);
        } catch (ConflictHttpException $e) {
            return $e->getMessage();
        }

        return '';
    }

    /** Work is bounded in number: on other craft at once, and in a queue. */
    public function testWorkIsBoundedInNumber(): void
    {
        $row = ['kind' => 'analyse', 'title' => 'Look', 'work_order' => '{}', 'asked_at' => 1.0, 'progress' => 0, 'doing' => ''];
        $row += ['step' => '[]', 'cancel_asked' => 0, 'message' => '', 'result' => '[]', 'seen' => 0, 'heartbeat_at' => microtime(true)];
        $db = $this->entities()->getConnection();
        for ($n = 0; $n < 8; ++$n) {
            $db->insert('job', $row + ['craft_id' => $this->craft('bittern')->id, 'state' => 'running', 'pid' => getmypid()]);
        }
        self::assertStringContainsString('Work on 8 other craft is under way', $this->refused());
        $db->executeStatement('DELETE FROM job');
        for ($n = 0; $n < 42; ++$n) {
            $db->insert('job', $row + ['craft_id' => $this->craft()->id, 'state' => 0 === $n ? 'running' : 'queued', 'pid' => getmypid()]);
        }
        self::assertStringContainsString('wait already', $this->refused());
    }

    /** However much ended since: what was broken off stays told, and what is dead at the head of a long queue holds nobody up. */
    public function testWhatWasBrokenOffIsToldHoweverMuchCameAfter(): void
    {
        $row = ['kind' => 'import', 'title' => 'Bring in', 'work_order' => '{}', 'asked_at' => 1.0, 'progress' => 0, 'doing' => ''];
        $row += ['step' => '[]', 'cancel_asked' => 0, 'message' => '', 'result' => '[]', 'seen' => 0, 'craft_id' => $this->craft()->id];
        $db = $this->entities()->getConnection();
        $db->insert('job', ['state' => 'interrupted', 'title' => 'Bring in the first'] + $row);
        for ($n = 0; $n < 90; ++$n) {
            $db->insert('job', ['state' => 'done'] + $row);
        }
        $told = self::getContainer()->get(Jobs::class)->of($this->craft());
        self::assertSame('Bring in the first', $told[\count($told) - 1]->title);
        self::assertGreaterThan(10, \count($told));
        // A process that is dead since, before forty that wait.
        $db->insert('job', ['state' => 'running', 'title' => 'Dead', 'pid' => 999_999_999] + $row);
        for ($n = 0; $n < 40; ++$n) {
            $db->insert('job', ['state' => 'queued', 'title' => "Waits $n"] + $row);
        }
        $told = self::getContainer()->get(Jobs::class)->of($this->craft());
        $states = array_column($told, 'state', 'title');
        self::assertSame(JobState::Interrupted, $states['Dead'] ?? null);
        self::assertSame(JobState::Waiting, $states['Waits 0'] ?? null, 'its turn has come');
        self::assertSame(JobState::Interrupted, $states['Bring in the first'] ?? null);
    }

    public function testACraftIsHeldByOneAndLetGoHoweverThatEnds(): void
    {
        $locks = self::getContainer()->get(CraftLocks::class);
        $craft = $this->craft();
        self::assertFalse($locks->isHeld($craft));
        self::assertTrue($locks->hold($craft));
        self::assertTrue($locks->hold($craft), 'who holds it may hold it once more');
        $locks->release($craft);
        self::assertTrue($locks->isHeld($craft));
        self::assertFalse($locks->isHeld($this->craft('bittern')), 'each craft for itself');
        $locks->release($craft);
        $locks->release($craft);
        self::assertFalse($locks->isHeld($craft));
        self::assertDirectoryExists(self::data().'/locks', 'it lies in the data folder');
        $other = $this->holder();
        self::assertTrue($locks->isHeld($craft));
        self::assertFalse($locks->hold($craft));
        $other->signal(\SIGKILL);
        $other->wait();
        self::assertFalse($locks->isHeld($craft), 'a killed process lets go');
    }

    public function testWhileTheCraftIsHeldElsewhereAJobFailsInWords(): void
    {
        $other = $this->holder();
        $job = $this->job('juggle', []);
        self::assertSame(JobState::Failed, $job->state);
        self::assertStringContainsString('still under way', $job->message);
        $other->signal(\SIGKILL);
        $other->wait();
    }

    /** Frozen for minutes it is not ended; gone, it is, though another process may have its number by now. */
    public function testAJobIsEndedWhenItsProcessHasLetGo(): void
    {
        $job = new Job($this->craft(), 'fly', 'Fly Cruise', [], microtime(true) - 900);
        $job->state = JobState::Running;
        $job->pid = (int) getmypid();
        $job->startedAt = $job->heartbeatAt = microtime(true) - 800;
        $this->entities()->persist($job);
        $this->entities()->flush();
        $other = $this->holder();
        self::assertSame(JobState::Running, self::getContainer()->get(Jobs::class)->find((int) $job->id)?->state);
        $other->signal(\SIGKILL);
        $other->wait();
        $ended = self::getContainer()->get(Jobs::class)->find((int) $job->id);
        self::assertSame(JobState::Interrupted, $ended?->state);
        self::assertStringContainsString('It can be started again', $ended->message);
    }

    public function testProgressThatCannotBeWrittenEndsNoJob(): void
    {
        $broken = DriverManager::getConnection(['driver' => 'pdo_sqlite', 'memory' => true]);
        (new JobProgress($broken, 1))->at(0.5, 'working');
        $this->addToAssertionCount(1);
    }

    /** Killed after its log had come in: started again, it looks at that log rather than refusing it as known. */
    #[Group('slow')]
    public function testAKilledImportCanBeStartedAgain(): void
    {
        $this->link();
        $path = self::data().'/again.csv';
        $rows = "time_s,setpoint_roll_dps,rate_filtered_roll_dps\n";
        for ($i = 0; $i < 6000; ++$i) {
            $rows .= \sprintf("%.4f,%.2f,%.2f\n", $i / 1000, 100 * sin($i / 50), 95 * sin($i / 50 - 0.2));
        }
        file_put_contents($path, $rows);
        copy($path, "$path.kept");
        $first = $this->job('import', ['path' => $path, 'name' => 'a log']);
        self::assertSame(JobState::Done, $first->state, $first->message);
        // As a process leaves it that was killed while it looked at the log.
        $first->state = JobState::Interrupted;
        $this->entities()->flush();
        copy("$path.kept", $path);
        $again = $this->job('import', ['path' => $path, 'name' => 'a log']);
        self::assertSame(JobState::Done, $again->state, $again->message);
        self::assertSame($first->result['log'], $again->result['log']);
        self::assertCount(1, $this->entities()->getRepository(Log::class)->findAll());
        // A third time it is known, and that is said.
        $this->entities()->clear();
        foreach ($this->entities()->getRepository(Job::class)->findAll() as $job) {
            $job->state = JobState::Done;
        }
        $this->entities()->flush();
        copy("$path.kept", $path);
        $third = $this->job('import', ['path' => $path, 'name' => 'a log']);
        self::assertSame(JobState::Failed, $third->state);
        self::assertStringContainsString('already here as C-0001', $third->message);
    }

    /** A flight whose process was killed has a recording as far as it went, torn where it ended: it is fetched like any other. */
    #[Group('slow')]
    public function testWhatAKilledFlightRecordedIsFetched(): void
    {
        $this->link();
        $this->ready();
        $this->job('fly', ['card' => 'cruise', 'seed' => 2, 'seconds' => 6]);
        $held = $this->world()->recorder()->read(1, 0, 1 << 28);
        // The next was killed in the middle of a page.
        $memory = $this->world()->recorder();
        self::assertSame(2, $memory->begin());
        $memory->append(2, substr($held, 0, (int) (0.6 * \strlen($held))));
        $job = $this->job('fetch', ['recordings' => [2]]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        $log = $this->entities()->find(Log::class, $job->result['log']);
        self::assertNotNull($log);
        self::assertGreaterThan(2.0, $log->durationS);
        self::assertLessThan(4.5, $log->durationS);
        // Of one whose process was killed at its first byte nothing can be read, and that is said.
        self::assertSame(3, $memory->begin());
        $memory->append(3, substr($held, 0, 20));
        self::assertStringContainsString('No head of a recording', $this->job('fetch', ['recordings' => [3]])->message);
        // It holds up none of those after it.
        self::assertSame(4, $memory->begin());
        $memory->append(4, substr($held, 0, (int) (0.5 * \strlen($held))));
        $both = $this->job('fetch', ['recordings' => [3, 4]]);
        self::assertSame(JobState::HalfDone, $both->state);
        self::assertStringContainsString('Recording 3: No head', $both->message);
        self::assertIsInt($both->result['log'] ?? null);
    }

    /** A pilot comes home with several logs: they come in one after the other, in their order, and what held them up may even be killed. */
    public function testLogsWaitForTheirTurn(): void
    {
        $jobs = self::getContainer()->get(Jobs::class);
        $first = new Job($this->craft(), 'import', 'Bring in a', ['path' => 'a'], microtime(true));
        $first->state = JobState::Running;
        $first->pid = (int) getmypid();
        $this->entities()->persist($first);
        $this->entities()->flush();
        $other = $this->holder();
        $second = $jobs->start($this->craft(), 'import', 'Bring in b', ['path' => '/nowhere/b']);
        $third = $jobs->start($this->craft(), 'import', 'Bring in c', ['path' => '/nowhere/c']);
        $flight = $jobs->start($this->craft(), 'fly', 'Fly Cruise', ['card' => 'cruise']);
        foreach ([$second, $third, $flight] as $job) {
            self::assertSame(JobState::Queued, $job->state);
        }
        self::assertStringContainsString('waits for', $second->doing);
        foreach ([['import', ['path' => '/nowhere/b']], ['fly', ['card' => 'hover']], ['flash', []], ['series', []]] as [$kind, $order]) {
            try {
                $jobs->start($this->craft(), $kind, "A second $kind", $order);
                self::fail("$kind was taken");
            } catch (ConflictHttpException $e) {
                self::assertStringContainsString('still under way', $e->getMessage());
            }
        }
        $jobs->cancel($third);
        self::assertSame(JobState::Cancelled, $third->state);
        $jobs->of($this->craft());
        self::assertSame(JobState::Queued, $second->state, 'what is under way is waited for');
        $other->signal(\SIGKILL);
        $other->wait();
        $jobs->of($this->craft());
        self::assertSame(JobState::Interrupted, $first->state);
        self::assertSame(JobState::Waiting, $second->state, 'it is its turn, its process begins');
        self::assertSame(JobState::Queued, $flight->state, 'one at a time');
        $jobs->cancel($flight);
        self::assertSame(JobState::Cancelled, $flight->state);
    }

    /** Work that ends begins the next itself, whether anybody looks or not. */
    public function testWhatEndsBeginsTheNext(): void
    {
        $queued = new Job($this->craft(), 'import', 'Bring in b', ['path' => '/nowhere/b'], microtime(true));
        $queued->state = JobState::Queued;
        $this->entities()->persist($queued);
        $this->entities()->flush();
        self::assertSame(JobState::Failed, $this->job('juggle', [])->state);
        $this->entities()->refresh($queued);
        self::assertSame(JobState::Waiting, $queued->state);
    }

    /** Another process that writes to Curlew until it is killed. */
    private function holder(): Process
    {
        $code = 'require '.var_export(\dirname(__DIR__, 3).'/vendor/autoload.php', true).';'.
            '$l = (new '.LockFactory::class.'(new '.FlockStore::class.'('.var_export(self::data().'/locks', true).')))'.
            '->createLock("craft-curlew", null); echo $l->acquire() ? "held" : "not", "\n"; sleep(60);';
        if (!is_dir(self::data().'/locks')) {
            mkdir(self::data().'/locks', 0o775, true);
        }
        $process = new Process([\PHP_BINARY, '-r', $code]);
        $process->start();
        $process->waitUntil(static fn (string $type, string $out): bool => str_contains($out, "\n"));
        self::assertStringContainsString('held', $process->getOutput());

        return $process;
    }
}
