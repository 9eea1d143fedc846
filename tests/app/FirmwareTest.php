<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Work\CraftLocks;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobPhase;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\Jobs;
use Ortholex\App\Work\JobState;
use Ortholex\App\Work\JobStep;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\IntelHex;

final class FirmwareTest extends AppCase
{
    public function testPreReleasesAndOtherBoardsAreShownOnlyWhenAskedFor(): void
    {
        $this->link();
        $html = $this->page('/craft/curlew/12');
        self::assertStringNotContainsString('26.10-pre1', $html);
        self::assertStringNotContainsString('Quern F7-2', $html);
        self::assertStringContainsString('26.10-pre1', $this->page('/craft/curlew/12?pre=1'));
        self::assertStringContainsString('Quern F7-2', $this->page('/craft/curlew/12?others=1'));
    }

    public function testAMisfitCannotBeWrittenByAnyRoad(): void
    {
        $this->link();
        self::assertStringNotContainsString('firmware/write"', $this->page('/craft/curlew/12?image=loam-26.06-quern-f7-2'));
        $problem = $this->post('/craft/curlew/firmware/write', ['image' => 'loam-26.06-quern-f7-2', 'typed' => 'Quern F7'], 422);
        self::assertSame('image', $problem['field']);
        $before = (string) file_get_contents($this->world()->store->flashPath());
        $job = $this->job('flash', ['image' => 'loam-26.06-quern-f7-2', 'keep' => true, 'typed' => 'Quern F7']);
        self::assertSame(JobState::Failed, $job->state, 'nor by a job made by hand');
        self::assertStringContainsString('Quern F7-2', $job->message);
        self::assertSame($before, (string) file_get_contents($this->world()->store->flashPath()));
    }

    public function testAFlashSnapshotsWritesVerifiesAndBringsTheSettingsBack(): void
    {
        $this->link('dunlin');
        $job = $this->job('flash', ['image' => 'loam-26.06-marl-f4', 'keep' => true], 'dunlin');
        self::assertSame(JobState::Done, $job->state, $job->message);
        $craft = $this->craft('dunlin');
        $this->entities()->refresh($craft);
        self::assertSame('26.06', $craft->version);
        self::assertFalse($craft->inBootloader);
        // Dunlin ran 25.08, whose idle was in microseconds and whose hold was in tenths of a second.
        self::assertSame(7.5, $craft->settings['motors.idle_pct']);
        self::assertSame(0.5, $craft->settings['link_loss.hold_s']);
        self::assertSame(140.0, $craft->settings['frame.diagonal_mm']);
        $html = $this->page('/craft/dunlin/12');
        $fates = ['motors.idle_permille 75 → motors.idle_pct 7.5', 'link_loss.tone on', 'converted', 'dropped', 'kept'];
        $said = ['Written and verified', ...$fates];
        foreach ($said as $words) {
            self::assertStringContainsString($words, $html);
        }
        $names = array_map(static fn (Snapshot $s): string => $s->name, $this->entities()->getRepository(Snapshot::class)->findAll());
        self::assertSame(['As found at first link', 'Before flashing 26.06'], $names);
        self::assertSame('Flash: 25.08 to 26.06', $this->entities()->getRepository(ChangeEntry::class)->findAll()[0]->what);
    }

    public function testWipedSettingsAreDefaultsAndTheSnapshotIsTheWayBack(): void
    {
        $this->link();
        $job = $this->job('flash', ['image' => 'loam-26.01-quern-f7', 'keep' => false]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertSame(24.0, $this->world()->store->peek()->running['gain.roll.p']);
        self::assertSame(
            33.0,
            $this->entities()
                ->getRepository(Snapshot::class)
                ->findOneBy([], ['id' => 'DESC'])?->settings['gain.roll.p'],
        );
    }

    public function testInterruptedItWaitsInTheBootloaderIsToldAndFinished(): void
    {
        $this->link();
        $this->world()->move('fault:worn_flash', '1');
        $job = $this->job('flash', ['image' => 'loam-26.06-quern-f7', 'keep' => true]);
        self::assertSame(JobState::Failed, $job->state);
        self::assertStringContainsString('0x08010800', $job->message);
        $html = $this->page('/craft/curlew/12');
        $this->entities()->clear();
        self::assertTrue($this->craft()->inBootloader);
        self::assertStringContainsString('name="image" value="loam-26.06-quern-f7"', $html);
        self::assertStringContainsString('Finish writing', $this->page('/'));
        $this->world()->move('fault:worn_flash', '0');
        $again = $this->job('flash', ['image' => 'loam-26.06-quern-f7', 'keep' => true, 'resume' => true]);
        self::assertSame(JobState::Done, $again->state, $again->message);
        self::assertSame(17, $again->result['skipped']);
        self::assertSame(33.0, $this->world()->store->peek()->kept['gain.roll.p'], 'the settings came back all the same');
    }

    public function testAJobWhoseProcessIsGoneShowsAsInterruptedAndCanStartAgain(): void
    {
        $this->link();
        $job = new Job($this->craft(), 'flash', 'Write Loam 26.06', ['image' => 'loam-26.06-quern-f7', 'keep' => true], microtime(true));
        $job->state = JobState::Running;
        $job->doing = 'writing page 40 of 157';
        // A process number that no process has.
        $job->pid = 4_194_000;
        $job->heartbeatAt = microtime(true);
        $this->entities()->persist($job);
        $this->entities()->flush();
        self::assertStringContainsString('Write Loam 26.06: interrupted', $this->page('/craft/curlew/12'));
        $job = $this->entities()->find(Job::class, $job->id);
        self::assertSame(JobState::Interrupted, $job?->state);
        self::assertStringContainsString('page 40', $job->message);
        self::assertCount(1, self::getContainer()->get(Jobs::class)->of($this->craft()));
        $this->post("/jobs/{$job->id}/seen");
        self::assertCount(0, self::getContainer()->get(Jobs::class)->of($this->craft()));
    }

    public function testACancelledFlashLeavesTheBoardInItsBootloader(): void
    {
        $this->link();
        $job = new Job($this->craft(), 'flash', 'Write Loam 26.06', ['image' => 'loam-26.06-quern-f7', 'keep' => true], microtime(true));
        $job->cancelAsked = true;
        $this->entities()->persist($job);
        $this->entities()->flush();
        self::getContainer()->get(\Ortholex\App\Work\JobRunner::class)->run((int) $job->id);
        $this->entities()->refresh($job);
        self::assertSame(JobState::Cancelled, $job->state);
    }

    public function testAFileFromDiskIsJudgedByItsBytes(): void
    {
        $this->link();
        $known = ShelfMaker::image('QUERN-F7', '26.06', '', 0x0800_8000, 312);
        $image = $this->post('/craft/curlew/firmware/from-disk', ['upload' => $this->upload(IntelHex::write($known))])['image'];
        self::assertIsString($image);
        self::assertStringContainsString(
            'Loam 26.06 fits',
            $this->page("/craft/curlew/12?image=$image"),
            'known to the shelf by its bytes',
        );
        $other = $this->post('/craft/curlew/firmware/from-disk', [
            'upload' => $this->upload(IntelHex::write(HexImage::of([0x0800_8000 => random_bytes(5000)]))),
        ])['image'];
        self::assertIsString($other);
        $html = $this->page("/craft/curlew/12?image=$other");
        self::assertStringContainsString('Cannot tell', $html);
        self::assertSame('typed', $this->post('/craft/curlew/firmware/write', ['image' => $other, 'typed' => 'Quern'], 422)['field']);
        $foreign = $this->post('/craft/curlew/firmware/from-disk', [
            'upload' => $this->upload(IntelHex::write(HexImage::of([0x1000 => 'abc']))),
        ])['image'];
        self::assertIsString($foreign);
        self::assertStringContainsString('does not fit', $this->page("/craft/curlew/12?image=$foreign"));
    }

    public function testANewWriteAnswersForTheOneThatFailedAndForNoOtherWork(): void
    {
        $jobs = [];
        foreach ([['flash', 'curlew'], ['import', 'curlew'], ['flash', 'dunlin'], ['flash', 'curlew']] as [$kind, $slug]) {
            $job = new Job($this->craft($slug), $kind, $kind, [], microtime(true));
            $job->state = JobState::Failed;
            $this->entities()->persist($jobs[] = $job);
        }
        $this->entities()->flush();
        self::getContainer()->get(Jobs::class)->answers($jobs[3]);
        foreach ($jobs as $job) {
            $this->entities()->refresh($job);
        }
        self::assertSame([true, false, false, false], array_map(static fn (Job $j): bool => $j->seen, $jobs));
    }

    public function testWhereAJobIsIsToldInFiguresBesideItsWords(): void
    {
        $job = new Job($this->craft(), 'flash', 'Write Loam 26.06', ['image' => 'loam-26.06-quern-f7'], microtime(true));
        $job->state = JobState::Running;
        $job->pid = (int) getmypid();
        $this->entities()->persist($job);
        $this->entities()->flush();
        self::assertTrue(self::getContainer()->get(CraftLocks::class)->hold($this->craft()));
        $step = new JobStep(JobPhase::Verify, 40, 157, 'rear_left', 9.96);
        (new JobProgress($this->entities()->getConnection(), (int) $job->id))->at(0.5, 'in whatever words', $step);
        $this->entities()->clear();
        $told = $this->json('/craft/curlew/live.json')['jobs'][0] ?? [];
        self::assertEquals(
            ['phase' => 'verify', 'done' => 40, 'of' => 157, 'place' => 'rear_left', 'left_s' => 10, 'slower' => false],
            $told['step'] ?? null,
        );
        self::assertSame([0.5, 'in whatever words, about 10 s left'], [$told['progress'] ?? null, $told['doing'] ?? null]);
    }

    public function testADamagedFileIsRefusedWithItsLine(): void
    {
        $this->link();
        $text = IntelHex::write(HexImage::of([0x0800_8000 => random_bytes(500)]));
        $lines = explode("\n", $text);
        $lines[7] = substr_replace($lines[7], 'A' === $lines[7][12] ? 'B' : 'A', 12, 1);
        $problem = $this->post('/craft/curlew/firmware/from-disk', ['upload' => $this->upload(implode("\n", $lines))], 422);
        self::assertSame('file', $problem['field']);
        self::assertStringContainsString('Line 8: checksum', (string) json_encode($problem['error']));
        $this->post('/craft/curlew/firmware/from-disk', ['upload' => str_repeat('0', 32)], 422);
    }
}
