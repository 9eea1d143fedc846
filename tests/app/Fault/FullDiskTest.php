<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobRunner;
use Ortholex\App\Work\JobState;
use PHPUnit\Framework\Attributes\Group;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;

/** A disk without room: what is asked for is refused by its cause, nothing is lost, and with room again it is done. */
final class FullDiskTest extends FaultCase
{
    public function testThePageNamesTheCause(): void
    {
        $this->powered('curlew');
        $staging = $this->service(Staging::class);
        $staging->stage($this->craft(), ['gain.roll.p' => 31]);
        $seen = ['seen' => $staging->revision($this->craft())];
        FullDisk::fillAt(1);
        $said = $this->post('/craft/curlew/commit', ['reason' => 'no room'] + $seen, 507)['error'] ?? '';
        self::assertIsString($said);
        self::assertStringContainsString('The disk is full', $said);
        self::assertStringContainsString(self::data(), $said, 'it says where');
        $this->makeRoom();
        self::assertSame(['gain.roll.p' => 31.0], $this->staged($this->craft()));
        Plan::fill();
        $said = $this->post('/craft/curlew/commit', ['reason' => 'no room on the bench'] + $seen, 507)['error'] ?? '';
        self::assertIsString($said);
        self::assertStringContainsString('world.json', $said);
        $this->makeRoom();
        self::assertSame(33.0, $this->world()->store->peek()->kept['gain.roll.p']);
        $this->post('/craft/curlew/link');
        $this->post('/craft/curlew/commit', ['reason' => 'with room'], 200);
        self::assertSame(31.0, $this->world()->store->peek()->kept['gain.roll.p']);
    }

    #[Group('faults')]
    public function testAnImportIsWholeOrNotThereAtEveryWrite(): void
    {
        $path = $this->written($this->log());
        $mark = $this->mark('curlew');
        FullDisk::fillAt(\PHP_INT_MAX);
        $this->import($path);
        $writes = FullDisk::$writes;
        $whole = $this->traces();
        self::assertCount(3, $whole);
        $this->backTo($mark, 'curlew');
        $full = 0;
        for ($at = 1; $at <= $writes; ++$at) {
            $mark = $this->mark('curlew');
            FullDisk::fillAt($at);
            try {
                $this->import($path);
            } catch (\Throwable $e) {
                self::assertTrue(self::isFull($e), "write $at: ".$e->getMessage());
            }
            $full += FullDisk::$full ? 1 : 0;
            $this->makeRoom();
            $job = $this->import($path);
            // Where only the end of the work could not be told, all of it is there.
            self::assertTrue(JobState::Done === $job->state || str_contains($job->message, 'already here'), "write $at: $job->message");
            self::assertSame($whole, $this->traces(), "write $at: one log, and all of it");
            $this->backTo($mark, 'curlew');
        }
        unlink($path);
        self::assertGreaterThan(8, $full, self::AS_OFTEN);
        fwrite(\STDERR, "\nan import of $full writes, each without room once, all whole in the end\n");
    }

    /** The demo is laid out by a process of its own, under a limit of what a file may hold, which its writes meet one after the other. */
    #[Group('faults')]
    public function testSettingUpWithoutRoomSaysSoAndGoesOnLater(): void
    {
        $data = sys_get_temp_dir().'/ortholex-no-room-'.getmypid();
        $files = new Filesystem();
        try {
            foreach ([0, 1, 8, 40, 120, 300, 900] as $kilobytes) {
                $stopped = $this->setUpUnder($data, $kilobytes);
                self::assertFalse($stopped->isSuccessful(), "$kilobytes kB");
                $said = $stopped->getOutput().$stopped->getErrorOutput();
                self::assertMatchesRegularExpression('~disk is full|could be written|disk I/O~i', $said, "$kilobytes kB");
            }
            // On what was left by all these, it ends as if nothing had been.
            $done = $this->setUpUnder($data, null);
            self::assertTrue($done->isSuccessful(), $done->getErrorOutput().$done->getOutput());
            foreach (['curlew', 'bittern', 'dunlin'] as $slug) {
                $world = json_decode((string) file_get_contents("$data/bench/$slug/world.json"), true);
                self::assertIsArray($world);
                self::assertIsArray($world['kept']);
                self::assertGreaterThan(100, \count($world['kept']), $slug);
            }
            self::assertGreaterThan(8, \count(glob("$data/shelf/*.hex") ?: []));
            foreach (glob("$data/shelf/*.hex") ?: [] as $image) {
                self::assertStringEndsWith(":00000001FF\n", (string) file_get_contents($image), 'no image is cut short');
            }
        } finally {
            $files->remove($data);
        }
    }

    private function setUpUnder(string $data, ?int $kilobytes): Process
    {
        $root = \dirname(__DIR__, 3);
        $limit = null === $kilobytes ? '' : "trap '' XFSZ; ulimit -f $kilobytes; ";
        $env = ['ORTHOLEX_DATA' => $data, 'APP_ENV' => 'test', 'ORTHOLEX_SYNC' => '0', 'APP_DEBUG' => '0'];
        $process = new Process(['bash', '-c', $limit.'exec php bin/console app:set-up --no-flights'], $root, $env, timeout: 120);
        $process->run();

        return $process;
    }

    private function import(string $path): Job
    {
        $this->entities()->clear();
        $job = new Job($this->craft(), 'import', 'Bring in', ['path' => $path, 'name' => 'x.csv'], microtime(true));
        $at = FullDisk::$at;
        FullDisk::$at = 0;
        $this->entities()->persist($job);
        $this->entities()->flush();
        FullDisk::$at = $at;
        $copy = $this->written((string) file_get_contents($path));
        $job->parameters = ['path' => $copy, 'name' => 'x.csv'];
        $this->service(JobRunner::class)->run((int) $job->id);
        $this->entities()->refresh($job);

        return $job;
    }

    /** @return array<string, string> a hash of each trace of the one log there is */
    private function traces(): array
    {
        $this->entities()->clear();
        $logs = $this->entities()->getRepository(Log::class)->findAll();
        self::assertCount(1, $logs);
        $flight = $this->service(LogStore::class)->load($logs[0]);

        $traces = [];
        foreach ($flight->names() as $name) {
            $traces[$name] = md5(serialize($flight->trace($name)));
        }

        return $traces;
    }

    private function log(): string
    {
        $csv = "time_s,rate_filtered_roll_dps,setpoint_roll_dps,output_front_left_pct\n";
        for ($i = 0; $i < 3000; ++$i) {
            $t = $i / 500;
            $csv .= \sprintf("%.4f,%.2f,%.2f,%.1f\n", $t, 90 * sin(7 * ($t - 0.012)), 90 * sin(7 * $t), 40 + 5 * sin(3 * $t));
        }

        return $csv;
    }
}
