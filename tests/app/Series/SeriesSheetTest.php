<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Series;

use Doctrine\DBAL\Connection;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Series\Series;
use Ortholex\App\Series\SeriesBook;
use Ortholex\App\Work\JobState;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;

/** Sheet 63: planned, flown as one job, told, taken; and what stood before is back. */
final class SeriesSheetTest extends AppCase
{
    public function testAPlanIsCheckedBeforeItStands(): void
    {
        self::assertStringContainsString('Link the craft once', $this->page('/craft/curlew/63'));
        $this->link();
        self::assertStringContainsString('Vary one setting in steps', $this->page('/craft/curlew/63'));
        $good = ['vary' => 'roll-ff', 'from' => '0', 'to' => '1.2', 'steps' => '3', 'card' => 'mixed_sticks'];
        $wrong = [
            ['vary' => 'roll-x'],
            ['card' => 'moon'],
            ['to' => '99'],
            ['steps' => '40'],
            ['from' => '1.2'],
            ['vary' => 'roll-pd', 'from' => 'much'],
        ];
        foreach ($wrong as $change) {
            $this->post('/craft/curlew/series', [...$good, ...$change], 422);
        }
        self::assertNull($this->book()->newest($this->craft()));
        $this->post('/craft/curlew/series', $good);
        self::assertStringContainsString('Flight 1 of 4 is next: feed-forward of roll at 0.', $this->page('/craft/curlew/63'));
        self::assertStringContainsString('A series is under way: 4 flights to go', html_entity_decode($this->page('/')));
        $this->post('/craft/curlew/series', $good, 409);
        self::assertStringContainsString('pack is not connected', $this->post('/craft/curlew/series/fly', [], 422)['error'] ?? '');
        $this->ready();
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.p' => 41]]);
        self::assertStringContainsString('Something is staged', $this->post('/craft/curlew/series/fly', [], 422)['error'] ?? '');
        $this->post('/craft/curlew/series/end');
        self::assertNull($this->book()->open($this->craft()));
    }

    /** A pack that beeps is not flown: the series stops before that flight, and goes on with a full one. */
    public function testALowPackStopsIt(): void
    {
        $this->link();
        $this->ready();
        $this->post('/craft/curlew/series', ['vary' => 'roll-ff', 'from' => '0', 'to' => '1.2', 'steps' => '2', 'card' => 'cruise']);
        $this->world()->move('pack_used', '0.97');
        $series = $this->book()->open($this->craft());
        $job = $this->job('series', ['series' => $series?->id]);
        self::assertSame(JobState::HalfDone, $job->state, $job->message);
        self::assertStringContainsString('the pack is low', $job->message);
        self::assertSame([], $job->result['logs'] ?? null);
        self::assertSame(0.0, $this->craft()->settings->number('gain.roll.ff'));
    }

    /** What is replaced, not set: each variant flown once, told by how it shakes; a log is asked with which it was flown. */
    #[Group('slow')]
    public function testPartsAreCompared(): void
    {
        $this->link();
        $this->ready();
        $parts = ['part' => 'arm', 'with' => 'as it is, screws tightened', 'card' => 'hover_and_climb'];
        foreach ([['part' => 'sail'], ['with' => 'only one'], ['card' => 'moon'], ['with' => ',,']] as $change) {
            $this->post('/craft/curlew/series/parts', [...$parts, ...$change], 422);
        }
        $this->post('/craft/curlew/series/parts', $parts);
        self::assertStringContainsString('Flight 1 of 2 is next: arm, as it is.', $this->page('/craft/curlew/63'));
        self::assertStringContainsString('the next with arm as it is', html_entity_decode($this->page('/')));
        self::assertStringContainsString('mount each', $this->post('/craft/curlew/series/fly', [], 422)['error'] ?? '');
        $logs = [];
        foreach (['1', '0'] as $i => $loose) {
            $this->world()->move('fault:loose_arm', $loose);
            $job = $this->job('fly', ['card' => 'hover_and_climb', 'seed' => 20 + $i, 'seconds' => 20]);
            self::assertSame(JobState::Done, $job->state, $job->message);
            $id = $job->result['log'];
            self::assertIsInt($id);
            $logs[] = $id;
            self::assertStringContainsString('of which step?', $this->page('/craft/curlew/63'));
            $this->post('/craft/curlew/series/count', ['log' => $id, 'variant' => $i + 3], 422);
            $this->post('/craft/curlew/series/count', ['log' => $id, 'variant' => $i + 1]);
        }
        $this->post('/craft/curlew/series/count', ['log' => $logs[0], 'variant' => 1], 422);
        $page = $this->page('/craft/curlew/63');
        self::assertStringContainsString('Arm: screws tightened shakes least.', $page);
        self::assertStringNotContainsString('series-take', $page, 'what was mounted is not staged');
        self::assertStringContainsString('screws tightened', $this->page("/craft/curlew/51/$logs[1]"), 'it is noted on its front');
    }

    /** A log that fits no step is not lost to the series: it can count as a step of its own. */
    #[Group('slow')]
    public function testALogOfNoStepIsAskedAbout(): void
    {
        $this->link();
        $this->ready();
        $plan = ['vary' => 'roll-ff', 'from' => '0.4', 'to' => '1.2', 'steps' => '2', 'card' => 'mixed_sticks'];
        $this->post('/craft/curlew/series', $plan);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.ff' => '0.8']]);
        $this->post('/craft/curlew/commit', ['reason' => 'by hand, and not as planned']);
        $job = $this->job('fly', ['card' => 'mixed_sticks', 'seed' => 31, 'seconds' => 20]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        $page = $this->page('/craft/curlew/63');
        self::assertStringContainsString('at 0.8, which is not one of the steps', preg_replace('~\s+~', ' ', $page) ?? '');
        $this->post('/craft/curlew/series/count', ['log' => $job->result['log']]);
        $this->entities()->clear();
        $series = $this->book()->open($this->craft());
        self::assertNotNull($series);
        self::assertSame([0.4, 0.8, 1.2], array_map(floatval(...), $series->steps));
        self::assertCount(1, $this->book()->flown($series));
        self::assertStringNotContainsString('of which step?', $this->page('/craft/curlew/63'));
    }

    #[Group('slow')]
    public function testFlownAsOneJobItTellsAndWhatStoodBeforeIsBack(): void
    {
        $this->link();
        $this->ready();
        $this->post('/craft/curlew/series', ['vary' => 'roll-ff', 'from' => '0', 'to' => '1.2', 'steps' => '2', 'card' => 'mixed_sticks']);
        $series = $this->book()->open($this->craft());
        self::assertInstanceOf(Series::class, $series);
        $job = $this->job('series', ['series' => $series->id]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertSame(0.0, $this->craft()->settings->number('gain.roll.ff'), 'as before');
        self::assertSame([], $this->staged($this->craft()));
        $series = $this->book()->open($this->craft());
        self::assertInstanceOf(Series::class, $series);
        self::assertSame([], $this->book()->remaining($series));
        self::assertCount(3, $this->book()->flown($series), 'baseline, step, baseline');
        $roll = $this->book()->result($series)?->axes['roll'];
        self::assertNotNull($roll);
        self::assertGreaterThan($roll->points[1]->figure, $roll->points[0]->figure, 'feed-forward takes lag away');
        self::assertSame([[], [], []], array_map(static fn ($p): array => $p->differs, $roll->points));
        $html = $this->page('/craft/curlew/63');
        self::assertStringContainsString('id="series-plot"', $html);
        self::assertStringContainsString('id="series-family"', $html);
        self::assertStringContainsString('series: gain.roll.ff at 1.2', html_entity_decode($this->page('/craft/curlew/73')));
        // Broken off after the flight, before its log had been looked at: it is named, tells nothing, and mixes up no rows.
        self::getContainer()->get(Connection::class)->executeStatement('DELETE FROM analysis');
        self::getContainer()->get(AnalysisStore::class)->compute($this->book()->flown($series)[2]);
        self::assertCount(2, $this->book()->looked($series, false));
        $html = $this->page('/craft/curlew/63');
        self::assertStringContainsString('Not looked at yet', $html);
        self::assertSame(1, substr_count($html, 'name="hot"'));
        self::assertStringContainsString('name="log" value="'.$this->book()->flown($series)[2]->id.'"', $html);
        $job = $this->job('series', ['series' => $series->id]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertCount(3, $this->book()->result($series)?->axes['roll']->points ?? []);
        self::assertCount(3, $this->book()->flown($series), 'nothing is flown twice');
        // Motors that were felt hot take a flight out.
        $hot = $this->book()->flown($series)[1]->id;
        $this->post('/craft/curlew/series/felt', ['log' => $hot, 'hot' => '1']);
        self::assertStringContainsString('left out: hot motors', $this->page('/craft/curlew/63'));
        // A flight with something else changed is matched to its step, named, and left out.
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 31]]);
        $this->post('/craft/curlew/commit', ['reason' => 'by the way']);
        $this->flown();
        self::assertStringContainsString('left out: gain.roll.p was otherwise', html_entity_decode($this->page('/craft/curlew/63')));
    }

    private function book(): SeriesBook
    {
        return self::getContainer()->get(SeriesBook::class);
    }
}
