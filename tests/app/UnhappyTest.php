<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Book\Step\NextSteps;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\StagedChange;
use Ortholex\App\Settings\Tray\TrayBuilder;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Ortholex\App\Work\JobState;
use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\BadRowReason;

/** What goes wrong in the middle, and what is true afterwards. */
final class UnhappyTest extends AppCase
{
    public function testACommitTheBoardRefusesHalfWayKeepsWhatTookAndWhatDidNot(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 28, 'gain.roll.d' => 11]]);
        // Behind our back someone puts on a firmware that takes D only up to 8.
        (new FlashFile($this->world()->store->flashPath(), $this->world()->model->flashBytes()))->write(
            0,
            ShelfMaker::image('QUERN-F7', '26.06', '', 0x0800_8000, 312)->flat(),
        );
        $this->world()->store->change(static function (WorldState $s): void {
            $s->runningVersion = '26.06';
        });
        $problem = $this->post('/craft/curlew/commit', ['reason' => 'more D'], 409);
        self::assertStringContainsString('outside 0 to 8', (string) json_encode($problem['error'] ?? ''));
        self::assertSame(28.0, $this->world()->store->peek()->running['gain.roll.p']);
        $entries = $this->entities()->getRepository(ChangeEntry::class)->findAll();
        self::assertCount(1, $entries);
        self::assertSame([['name' => 'gain.roll.p', 'from' => 33.0, 'to' => 28.0]], $entries[0]->items);
        self::assertSame(['gain.roll.d' => 11.0], $this->staged($this->craft()), 'what did not take stays staged');
    }

    public function testAStagedSettingThatAnotherFirmwareLacksDoesNotBreakAnything(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.throttle_fall_older_pct' => 20, 'gain.roll.p' => 30]]);
        $job = $this->job('flash', ['image' => 'loam-26.06-quern-f7', 'keep' => true]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        foreach (['11', '12', '61', '62', '71', '72', '73'] as $sheet) {
            $this->page("/craft/curlew/$sheet");
        }
        self::assertCount(
            1,
            self::getContainer()->get(TrayBuilder::class)->of($this->craft())->items,
            'only what this firmware has is offered',
        );
        $this->post('/craft/curlew/commit');
        self::assertSame(30.0, $this->world()->store->peek()->kept['gain.roll.p']);
    }

    public function testAnUnknownWorkFailsInWords(): void
    {
        $job = $this->job('juggle', []);
        self::assertSame(JobState::Failed, $job->state);
        self::assertStringContainsString('juggle', $job->message);
        self::assertCount(1, self::getContainer()->get(Jobs::class)->of($this->craft()));
    }

    public function testAJobRunsOnce(): void
    {
        $job = $this->job('juggle', []);
        $job->state = JobState::Done;
        $this->entities()->flush();
        self::getContainer()->get(\Ortholex\App\Work\JobRunner::class)->run((int) $job->id);
        $this->entities()->refresh($job);
        self::assertSame(JobState::Done, $job->state);
    }

    public function testACraftWithoutFirmwareDoesNotFly(): void
    {
        $this->link();
        $this->ready();
        $this->world()->move('bootloader_button', '1');
        self::assertStringContainsString(
            'no whole firmware',
            (string) json_encode($this->post('/craft/curlew/logs/fly', ['card' => 'cruise'], 422)),
        );
        $job = $this->job('fly', ['card' => 'cruise', 'seed' => 1, 'seconds' => 4]);
        self::assertSame(JobState::Failed, $job->state);
        self::assertCount(0, $this->entities()->getRepository(Log::class)->findAll());
        self::assertSame([], glob(self::data().'/recorder/*') ?: [], 'nothing is left on the recorder');
    }

    public function testACancelledFlightLeavesNoLog(): void
    {
        $this->link();
        $this->ready();
        $job = new Job($this->craft(), 'fly', 'Fly Cruise', ['card' => 'cruise', 'seed' => 1, 'seconds' => 20], microtime(true));
        $job->cancelAsked = true;
        $this->entities()->persist($job);
        $this->entities()->flush();
        self::getContainer()->get(\Ortholex\App\Work\JobRunner::class)->run((int) $job->id);
        $this->entities()->refresh($job);
        self::assertSame(JobState::Cancelled, $job->state);
        self::assertCount(0, $this->entities()->getRepository(Log::class)->findAll());
    }

    public function testALogWithGapsIsStoredWithItsTimesAndComesOutTheSame(): void
    {
        $this->link();
        $rows = "time_s,setpoint_roll_dps,rate_filtered_roll_dps\n";
        for ($i = 0; $i < 9000; ++$i) {
            $t = $i / 1000 + ($i >= 4000 ? 2.5 : 0) + ($i >= 7000 ? 0.75 : 0);
            $rows .= \sprintf("%.4f,%.2f,%.2f\n", $t, 100 * sin($i / 50), 95 * sin($i / 50 - 0.2));
        }
        $path = self::data().'/gaps.csv';
        file_put_contents($path, $rows."9.99,x,1\n");
        $job = $this->job('import', ['path' => $path, 'name' => 'gaps.csv']);
        self::assertSame(JobState::Done, $job->state, $job->message);
        $log = $this->entities()->getRepository(Log::class)->findAll()[0];
        self::assertSame([0, 4000, 7000], array_column($log->segments, 'first'));
        self::assertEqualsWithDelta([0.0, 6.5, 10.25], array_column($log->segments, 'start_s'), 1e-3);
        self::assertSame(1, $log->badRows['count']);
        $flight = self::getContainer()->get(LogStore::class)->load($log);
        self::assertCount(3, $flight->clock->segments);
        self::assertSame([4000, 3000, 2000], array_map('count', $flight->runs('setpoint_roll_dps')));
        self::assertEqualsWithDelta(100 * sin(8500 / 50), $flight->trace('setpoint_roll_dps')[8500], 0.01);
        $html = $this->page("/craft/curlew/52?log={$log->id}");
        self::assertStringContainsString('gap of 2501.0 ms', $html);
        self::assertSays(Fact::of(BadRowReason::NotANumber, column: 2), $html);
        self::assertStringContainsString('1 row could not be read', $this->page('/craft/curlew/51'));
        self::assertStringContainsString(
            'lacks the terms of the command',
            (string) json_encode($this->json("/craft/curlew/gains/predict/{$log->id}.json")) ?: '',
        );
        $this->post("/craft/curlew/logs/{$log->id}/note", ['note' => 'wind from the sea']);
        self::assertStringContainsString('wind from the sea', $this->page('/craft/curlew/51'));
    }

    public function testNextStepsNameWhatPressesFirst(): void
    {
        $steps = fn (): array => array_values(
            array_map(
                static fn ($s): string => str_replace('/craft/curlew/', '', $s->to),
                array_filter(self::getContainer()->get(NextSteps::class)->of($this->craft()), static fn ($s): bool => 'Play' !== $s->label),
            ),
        );
        self::assertSame(['11'], $steps());
        $this->link();
        self::assertSame(['51', '12'], $steps(), 'a first flight, and newer firmware');
        $this->entities()->persist(new StagedChange($this->craft(), 'gain.roll.p', 20.0));
        $this->entities()->flush();
        self::assertSame(['61?setting=gain.roll.p', '51', '12'], $steps());
        $craft = $this->craft();
        $craft->inBootloader = true;
        $this->entities()->flush();
        self::assertSame('12', $steps()[0]);
    }

    public function testASnapshotOfAnOlderFirmwareComesBackUnderNewNames(): void
    {
        $this->link('dunlin');
        self::assertSame(JobState::Done, $this->job('flash', ['image' => 'loam-26.06-marl-f4', 'keep' => true], 'dunlin')->state);
        $this->post('/craft/dunlin/stage', ['values' => ['motors.idle_pct' => 9.0]]);
        $this->post('/craft/dunlin/commit');
        $first = $this->entities()
            ->getRepository(\Ortholex\App\Settings\Snapshot::class)
            ->findOneBy(['name' => 'As found at first link']);
        self::assertSame(75, $first?->settings['motors.idle_permille'], 'taken under 25.08, in thousandths');
        $this->post("/craft/dunlin/snapshots/{$first->id}/stage");
        self::assertSame(['motors.idle_pct' => 7.5], $this->staged($this->craft('dunlin')));
    }
}
