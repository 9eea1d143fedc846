<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Interrupted;
use Ortholex\App\Settings\Journal\ItemState;
use Ortholex\App\Settings\Journal\Journal;
use Ortholex\App\Settings\Journal\Journals;
use Ortholex\App\Settings\Journal\JournalState;
use Ortholex\App\Settings\Outcome;
use Ortholex\App\Settings\Writing;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\EscSeats;
use Ortholex\Tests\app\AppCase;

/** What is written down before the first byte, and what it says when nobody came back to end it. */
final class JournalTest extends AppCase
{
    public function testItKnowsWhatWhereFromAndHowFar(): void
    {
        $journal = self::journal(new Craft('curlew', 'Curlew', '', '', '', []));
        self::assertSame(['a' => 2.0, 'b' => 'x', 'c' => true], $journal->wanted()->toArray());
        self::assertSame(['a' => 1.0, 'c' => false], $journal->before()->toArray(), 'of b nothing was known');
        self::assertSame(['a', 'b', 'c'], $journal->which(ItemState::Waiting));
        $journal->mark(['a', 'c'], ItemState::Taken);
        $journal->mark(['c'], ItemState::Kept);
        self::assertSame(['a'], $journal->which(ItemState::Taken));
        self::assertSame(['a', 'c'], $journal->which(ItemState::Taken, ItemState::Kept));
        self::assertSame(['b'], $journal->which(ItemState::Waiting));
        self::assertSame(['b', 'c'], (new Interrupted($journal, true, ['a'], true))->left());
    }

    public function testEachMarkIsOnDiskBeforeTheNextStep(): void
    {
        $journals = self::getContainer()->get(Journals::class);
        [$to, $from] = [SettingSet::of(['gain.roll.p' => 30.0]), SettingSet::of(['gain.roll.p' => 33.0])];
        $journal = $journals->begin($this->craft(), 'Commit', 'why', $to, $from, EscSeats::of([]));
        $read = fn (): mixed => $this->entities()->getConnection()->fetchOne('SELECT items FROM journal WHERE id = ?', [$journal->id]);
        self::assertStringContainsString('"state":"waiting"', (string) json_encode(json_decode((string) self::text($read()))));
        $journals->mark($journal, ['gain.roll.p'], ItemState::Kept);
        self::assertStringContainsString('"state":"kept"', self::text($read()));
        self::assertStringContainsString('33.0', self::text($read()), 'a whole number of a setting that is none stays what it is');
        $this->entities()->clear();
        self::assertSame($journal->id, $journals->open($this->craft())?->id);
        $done = $journals->open($this->craft());
        self::assertNotNull($done);
        $done->state = JournalState::Done;
        $this->entities()->flush();
        self::assertNull($journals->open($this->craft()));
        self::assertNull($journals->open($this->craft('bittern')), 'each craft has its own');
    }

    /** A process that was killed leaves it open: every sheet says so, a Commit waits, and the Workshop names the step. */
    public function testWhatWasInterruptedStandsOnEverySheetUntilItIsDecided(): void
    {
        $this->link();
        $this->leaveOpen();
        $html = $this->page('/craft/curlew/61');
        self::assertStringContainsString('Commit was interrupted', $html);
        self::assertStringContainsString('shows once the craft is linked', $html);
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.i' => 99]]);
        $refused = $this->post('/craft/curlew/commit', ['reason' => 'meanwhile'], 409);
        self::assertStringContainsString('was not finished', (string) json_encode($refused, \JSON_UNESCAPED_UNICODE));
        self::assertStringContainsString('was interrupted', $this->page('/'));
        // The board holds nothing of it: linked again, that is found out and put on record.
        $said = $this->post('/craft/curlew/link')['said'] ?? '';
        self::assertIsString($said);
        self::assertStringNotContainsString('go on with it', $said);
        self::assertStringNotContainsString('id="interrupted"', $this->page('/craft/curlew/61'));
        $entry = $this->newest();
        self::assertSame(Outcome::Undone, $entry->outcome);
        self::assertSame(['gain.roll.p', 'gain.roll.d'], $entry->left);
        self::assertStringContainsString('undone', $this->page('/craft/curlew/73'));
        $this->post('/craft/curlew/commit', ['reason' => 'after it']);
        self::assertSame(Outcome::Done, $this->newest()->outcome);
    }

    public function testHalfOfItIsToldAndBothWaysAreOffered(): void
    {
        foreach (['go-on' => [30.0, 3.0], 'take-back' => [33.0, 1.7]] as $way => [$p, $d]) {
            $end = ['gain.roll.p' => $p, 'gain.roll.d' => $d];
            $this->link();
            $this->leaveOpen();
            // The first of them had come to the board.
            $this->world()->store->change(static function ($s): void {
                $s->running['gain.roll.p'] = 30.0;
            });
            $said = $this->post('/craft/curlew/link')['said'] ?? '';
            self::assertStringContainsString('go on with it, or take it back', \is_string($said) ? $said : '');
            $html = $this->page('/craft/curlew/73');
            self::assertStringContainsString('0 of 2 on the craft', $html, 'it would be forgotten with the power');
            self::assertStringContainsString('half done', $html);
            foreach (['commit/go-on', 'commit/take-back'] as $action) {
                self::assertStringContainsString("action=\"/craft/curlew/$action\"", $html);
            }
            $this->post("/craft/curlew/commit/$way");
            $kept = $this->world()->store->peek()->kept;
            foreach ($end as $name => $value) {
                self::assertEqualsWithDelta($value, $kept[$name] ?? $this->world()->store->peek()->running[$name], 1e-9, "$way: $name");
            }
            self::assertNull(self::getContainer()->get(Writing::class)->interrupted($this->craft()));
            self::assertSame(409, $this->statusOf("/craft/curlew/commit/$way"), 'it is settled');
            // For the second way from where it began.
            $this->post('/craft/curlew/discard');
            $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 33.0, 'gain.roll.d' => 1.7]]);
            if ([] !== $this->staged($this->craft())) {
                $this->post('/craft/curlew/commit', ['reason' => 'as it was']);
            }
            $this->post('/craft/curlew/let-go');
        }
    }

    /** After a pull: one press where the person is plugs the cable in, links, and writes what is left. */
    public function testOneActionGoesOnAfterAPull(): void
    {
        $this->link();
        $this->leaveOpen();
        $this->world()->store->change(static function ($s): void {
            $s->kept['gain.roll.p'] = 30.0;
        });
        $this->world()->move('cable', '0');
        self::assertStringContainsString('action="/craft/curlew/commit/resume"', $this->page('/craft/curlew/54'));
        $said = $this->post('/craft/curlew/commit/resume')['said'] ?? '';
        self::assertIsString($said);
        self::assertStringContainsString('on the craft, as revision', $said);
        self::assertEqualsWithDelta(30.0, $this->world()->store->peek()->kept['gain.roll.p'], 1e-9);
        self::assertEqualsWithDelta(3.0, $this->world()->store->peek()->kept['gain.roll.d'], 1e-9);
        self::assertNull(self::getContainer()->get(Writing::class)->interrupted($this->craft()));
        self::assertTrue($this->world()->store->peek()->cable);
        // With nothing interrupted it only links.
        self::assertSame(['said' => 'Linked.'], $this->post('/craft/curlew/commit/resume'));
    }

    /** Pulled before the first byte: all of it is still staged, and the one press writes it from the beginning. */
    public function testOneActionWritesWhatHadNotBegunEither(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30.0, 'gain.roll.d' => 3.0]]);
        $this->leaveOpen();
        $this->world()->move('cable', '0');
        $said = $this->post('/craft/curlew/commit/resume')['said'] ?? '';
        self::assertIsString($said);
        self::assertStringContainsString('on the craft, as revision', $said);
        self::assertEqualsWithDelta(30.0, $this->world()->store->peek()->kept['gain.roll.p'], 1e-9);
        self::assertSame([], $this->staged($this->craft()));
        // What is staged otherwise by then is not written unseen.
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.i' => 99]]);
        $this->leaveOpen();
        $this->world()->move('cable', '0');
        $this->post('/craft/curlew/commit/resume');
        self::assertSame(['gain.yaw.i' => 99.0], $this->staged($this->craft()));
    }

    /** Without the link neither way can be gone. */
    public function testWithoutTheLinkItStaysOpen(): void
    {
        $this->link();
        $this->leaveOpen();
        $this->world()->move('cable', '0');
        self::assertSame(409, $this->statusOf('/craft/curlew/commit/go-on'));
        self::assertSame(409, $this->statusOf('/craft/curlew/commit/take-back'));
        self::assertNotNull(self::getContainer()->get(Journals::class)->open($this->craft()));
    }

    public function testWhileSettingsWaitToComeBackNothingIsCommitted(): void
    {
        $this->link();
        $craft = $this->craft();
        $craft->toReturn = 1;
        $this->entities()->flush();
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.i' => 99]]);
        $refused = $this->post('/craft/curlew/commit', ['reason' => 'now'], 409);
        self::assertStringContainsString('not back yet', (string) json_encode($refused));
        $this->post('/craft/curlew/firmware/aside');
        $this->post('/craft/curlew/commit', ['reason' => 'put aside']);
        self::assertSame(99.0, $this->world()->store->peek()->kept['gain.yaw.i']);
    }

    /** As a process leaves it that was killed after it had begun. */
    private function leaveOpen(): void
    {
        self::getContainer()
            ->get(Journals::class)
            ->begin(
                $this->craft(),
                'Commit',
                'more of both',
                SettingSet::of(['gain.roll.p' => 30.0, 'gain.roll.d' => 3.0]),
                SettingSet::of(['gain.roll.p' => 33.0, 'gain.roll.d' => 1.7]),
                EscSeats::of([]),
            );
        $this->entities()->clear();
    }

    private function newest(): ChangeEntry
    {
        return $this->entities()
            ->getRepository(ChangeEntry::class)
            ->findOneBy(['craft' => $this->craft()], ['id' => 'DESC']) ?? throw new \LogicException('no entry');
    }

    private function statusOf(string $url): int
    {
        $this->browser->request('POST', $url, content: '{}');

        return $this->browser->getResponse()->getStatusCode();
    }

    private static function text(mixed $value): string
    {
        return \is_string($value) ? $value : '';
    }

    private static function journal(Craft $craft): Journal
    {
        $waiting = ItemState::Waiting->value;

        return new Journal($craft, 'Commit', 'why', new \DateTimeImmutable(), [
            ['name' => 'a', 'from' => 1.0, 'to' => 2.0, 'state' => $waiting],
            ['name' => 'b', 'from' => null, 'to' => 'x', 'state' => $waiting],
            ['name' => 'c', 'from' => false, 'to' => true, 'state' => $waiting],
        ]);
    }
}
