<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Logs;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Work\JobState;
use Ortholex\Tests\app\AppCase;

/** Sheet 51: what a flight leaves on the recorder comes into the book by being fetched, once; then it may be erased. */
final class RecorderTest extends AppCase
{
    public function testAFlightWithoutALinkLiesOnTheRecorderUntilItIsFetched(): void
    {
        $this->link();
        $this->ready();
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '0']);
        $job = $this->job('fly', ['card' => 'cruise', 'seed' => 4, 'seconds' => 5]);
        self::assertSame(JobState::HalfDone, $job->state, $job->message);
        self::assertStringContainsString('It lies on the recorder', $job->message);
        self::assertCount(0, $this->logs());
        self::assertStringContainsString('While the craft is linked', $this->page('/craft/curlew/51'));
        $this->link();
        $page = $this->page('/craft/curlew/51');
        self::assertStringContainsString('1 recording, 1 of them new', preg_replace('~\s+~', ' ', strip_tags($page)) ?? '');
        // Not fetched, it is not erased unless that is said.
        $problem = $this->post('/craft/curlew/recorder/erase', [], 422);
        self::assertSame('unread', $problem['field']);
        $fetched = $this->job('fetch', ['recordings' => [1]]);
        self::assertSame(JobState::Done, $fetched->state, $fetched->message);
        [$log] = $this->logs();
        self::assertSame('Cruise', $log->title);
        self::assertEqualsWithDelta(5.0, $log->durationS, 0.01);
        self::assertSame($this->craft()->settings->number('gain.roll.p'), $log->settings->number('gain.roll.p'));
        self::assertStringContainsString('all in the book', $this->page('/craft/curlew/51'));
        self::assertSame([], glob(self::data().'/recorder/*'), 'nothing is left between');
        // Once more it is the same log, and nothing new is to be fetched.
        self::assertSame($log->id, $this->job('fetch', ['recordings' => [1]])->result['log']);
        self::assertCount(1, $this->logs());
        $this->post('/craft/curlew/recorder/fetch', [], 422);
        self::assertStringContainsString('erases itself', (string) json_encode($this->post('/craft/curlew/recorder/erase')));
        self::assertSame([], $this->world()->recorder()->recordings());
        self::assertCount(1, $this->logs(), 'what was fetched stays');
    }

    public function testAPulledCableCostsNoFlight(): void
    {
        $this->link();
        $this->ready();
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '0']);
        $this->job('fly', ['card' => 'cruise', 'seed' => 4, 'seconds' => 5]);
        $failed = $this->job('fetch', ['recordings' => [1]]);
        self::assertSame(JobState::Failed, $failed->state);
        self::assertStringContainsString('cable is out', $failed->message);
        // As a fetch leaves it that was torn, and as one that a full disk has spoilt.
        $this->link();
        $path = self::data().'/recorder/curlew-1.rec';
        @mkdir(\dirname($path));
        $held = $this->world()->recorder()->read(1, 0, 1 << 28);
        foreach ([substr($held, 0, 100_000), str_repeat("\0", 50_000)] as $i => $part) {
            file_put_contents($path, $part);
            if (1 === $i) {
                foreach ($this->logs() as $log) {
                    $this->entities()->remove($log);
                }
                $this->entities()->flush();
            }
            $job = $this->job('fetch', ['recordings' => [1]]);
            self::assertSame(JobState::Done, $job->state, $job->message);
            self::assertSame(hash('sha256', $held), $this->logs()[0]->sha256);
        }
        self::assertStringContainsString('no recording 9', $this->job('fetch', ['recordings' => [9]])->message);
    }

    public function testARecordingFromDiskComesInLikeAnyLog(): void
    {
        $flown = $this->flown('cruise', 4, 5);
        $bytes = $this->world()->recorder()->read(1, 0, 1 << 28);
        self::assertSame(hash('sha256', $bytes), $flown->sha256);
        $upload = $this->upload($bytes);
        $again = $this->job('import', ['path' => self::data()."/uploads/$upload", 'name' => 'one.rec']);
        self::assertStringContainsString('already here as C-0001', $again->message);
        // Torn in its middle it is another one, read around; it asks for no columns.
        $torn = substr_replace($bytes, str_repeat('x', 30_000), intdiv(\strlen($bytes), 2), 30_000);
        $upload = $this->upload($torn);
        $asked = $this->post('/craft/curlew/logs/import', ['upload' => $upload, 'name' => 'torn.rec']);
        self::assertArrayNotHasKey('ask', $asked);
        self::assertArrayHasKey('job', $asked);
        $job = $this->job('import', ['path' => self::data()."/uploads/$upload", 'name' => 'torn.rec'], 'bittern');
        self::assertSame(JobState::Done, $job->state, $job->message);
        $log = $this->entities()->getRepository(Log::class)->findOneBy(['craft' => $this->craft('bittern')]);
        self::assertNotNull($log);
        self::assertGreaterThan(1, \count($log->segments));
        self::assertSame('gap', $log->faults[0]['kind']);
        $nothing = $this->upload("\xD7OXPAGE\n".str_repeat('y', 4000));
        self::assertStringContainsString(
            'No head of a recording',
            $this->job('import', ['path' => self::data()."/uploads/$nothing", 'name' => 'x.rec'])->message,
        );
    }

    public function testItWritesWhileItsLeverIsUpAndWhereItIsSetTo(): void
    {
        $this->link();
        $this->ready();
        $this->post('/craft/curlew/stage', ['values' => ['action.record.on_in' => '8:1500-']]);
        $this->post('/craft/curlew/commit', ['reason' => 'only what is worth it']);
        self::assertStringContainsString('while its lever on', $this->page('/craft/curlew/51'));
        $this->world()->move('radio:lever.D', '0');
        $job = $this->job('fly', ['card' => 'cruise', 'seed' => 4, 'seconds' => 5]);
        self::assertSame(JobState::HalfDone, $job->state, $job->message);
        self::assertStringContainsString('a lever turns recording on, and it stood off', $job->message);
        self::assertSame([], $this->world()->recorder()->recordings());
        $this->world()->move('radio:lever.D', '2');
        self::assertSame(JobState::Done, $this->job('fly', ['card' => 'cruise', 'seed' => 4, 'seconds' => 5])->state);
        self::assertCount(1, $this->logs());
        $this->post('/craft/curlew/stage', ['values' => ['recorder.writes_to' => 'wire', 'action.record.on_in' => '']]);
        $this->post('/craft/curlew/commit', ['reason' => 'to a recorder on a wire']);
        $job = $this->job('fly', ['card' => 'cruise', 'seed' => 5, 'seconds' => 5]);
        self::assertStringContainsString('set to write elsewhere', $job->message);
        self::assertCount(1, $this->logs());
    }

    public function testDunlinHasNoRecorderAndSaysWhatToDoInstead(): void
    {
        $this->link('dunlin');
        self::assertStringContainsString('has none: a flight leaves no log', $this->page('/craft/dunlin/51'));
    }

    /** @return list<Log> */
    private function logs(): array
    {
        $this->entities()->clear();

        return array_values($this->entities()->getRepository(Log::class)->findBy(['craft' => $this->craft()]));
    }
}
