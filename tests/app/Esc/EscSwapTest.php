<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Esc;

use Ortholex\App\Esc\EscOrders;
use Ortholex\App\Esc\EscOrderState;
use Ortholex\App\Link\Escs;
use Ortholex\App\Record\WaysBack;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Journal\ItemState;
use Ortholex\App\Settings\Journal\Journals;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Settings\Staging;
use Ortholex\Bench\Esc\EscState;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Tests\app\AppCase;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;

/** An ESC is known by its serial number: what is set, staged, kept and taken back of it goes with it through every swap. */
final class EscSwapTest extends AppCase
{
    private const PLACES = ['front_right', 'rear_right', 'rear_left', 'front_left'];

    public function testWhatIsStagedGoesWithTheEsc(): void
    {
        $this->powered();
        $this->post('/craft/curlew/stage', ['values' => ['esc.front_right.advance_deg' => 19]]);
        $this->swap('front_right', 'rear_left');
        self::assertEquals(['esc.rear_left.advance_deg' => 19.0], $this->staged($this->craft()));
        $html = $this->page('/craft/curlew/16');
        self::assertStringContainsString('front right’s, now here', $html);
        self::assertStringContainsString('rear left’s, now here', $html);
        $this->post('/craft/curlew/commit', ['reason' => 'cooler']);
        self::assertSame(19.0, $this->held($this->homeOf('front_right'))['advance_deg'], 'the ESC that was front right has it');
        self::assertNotSame(19.0, $this->held($this->homeOf('rear_left'))['advance_deg']);
    }

    public function testTheWayBackAndTheSnapshotFindTheEscWhereItSitsNow(): void
    {
        $this->powered();
        $before = $this->held($this->homeOf('front_right'))['advance_deg'];
        $this->post('/craft/curlew/stage', ['values' => ['esc.front_right.advance_deg' => 19]]);
        $this->post('/craft/curlew/commit', ['reason' => 'cooler']);
        $this->swap('front_right', 'rear_left');
        $html = $this->page('/craft/curlew/73');
        self::assertStringContainsString('front right&#039;s, now rear left', $html);
        $entry = $this->entry();
        $said = $this->post("/craft/curlew/changes/$entry->id/back")['said'] ?? '';
        self::assertSame("The way back is staged. Front right's, now rear left.", $said);
        self::assertEquals(['esc.rear_left.advance_deg' => $before], $this->staged($this->craft()));
        $this->post('/craft/curlew/discard');
        // The snapshot of when the ESCs were first found.
        $snapshots = $this->entities()->getRepository(Snapshot::class)->findBy(['craft' => $this->craft()], ['id' => 'DESC']);
        self::assertStringContainsString('front right&#039;s, now rear left', $this->page("/craft/curlew/72?snapshot={$snapshots[0]->id}"));
        $this->post("/craft/curlew/snapshots/{$snapshots[0]->id}/stage");
        self::assertEquals(['esc.rear_left.advance_deg' => $before], $this->staged($this->craft()));
    }

    /** @return iterable<string, array{bool}> */
    public static function ways(): iterable
    {
        yield 'gone on with' => [true];
        yield 'taken back' => [false];
    }

    /** Interrupted, then someone solders: what is left of it goes to the ESC that it was meant for. */
    #[DataProvider('ways')]
    public function testWhatWasInterruptedFollowsTheEsc(bool $goOn): void
    {
        $this->powered();
        $meant = $this->homeOf('front_right');
        $before = $this->held($meant)['advance_deg'];
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 31, 'esc.front_right.starting_current_pct' => 50]]);
        $this->post('/craft/curlew/commit', ['reason' => 'what came through']);
        $journals = self::getContainer()->get(Journals::class);
        $to = ['gain.roll.p' => 31.0, 'esc.front_right.starting_current_pct' => 50.0, 'esc.front_right.advance_deg' => 19.0];
        $from = ['gain.roll.p' => 33.0, 'esc.front_right.starting_current_pct' => 40.0, 'esc.front_right.advance_deg' => $before];
        $seats = Escs::seats($this->craft());
        $journal = $journals->begin($this->craft(), 'Commit', 'cut short', SettingSet::of($to), SettingSet::of($from), $seats);
        $journals->mark($journal, ['gain.roll.p', 'esc.front_right.starting_current_pct'], ItemState::Kept);
        $this->entities()->clear();
        $this->swap('front_right', 'rear_left');
        $this->post('/craft/curlew/link');
        self::assertStringContainsString('2 of 3 on the craft', $this->page('/craft/curlew/61'));
        $other = $this->held($this->homeOf('rear_left'));
        $this->post('/craft/curlew/commit/'.($goOn ? 'go-on' : 'take-back'));
        $now = $this->held($meant);
        self::assertSame($goOn ? [50.0, 19.0] : [40.0, (float) $before], [
            (float) $now['starting_current_pct'],
            (float) $now['advance_deg'],
        ]);
        self::assertEquals($other, $this->held($this->homeOf('rear_left')), 'the one that sits there now is left alone');
        self::assertSame($goOn ? 31.0 : 33.0, $this->world()->store->peek()->kept['gain.roll.p']);
        self::assertStringNotContainsString('was interrupted', $this->page('/craft/curlew/61'));
    }

    public function testWhatIsLeftOfAFlashIsOfferedWhereTheEscSitsNow(): void
    {
        $this->powered();
        $orders = self::getContainer()->get(EscOrders::class);
        $begun = $orders->begin($this->craft(), ['rear_left' => 'no-such-image'], 'withy-1.4.0-40');
        $orders->keep($this->craft(), $begun['rear_left']->failed('it did not start'));
        self::assertSame(['rear_left'], array_keys($orders->open($this->craft())));
        $this->swap('rear_left', 'rear_right');
        $open = $orders->open($this->craft());
        self::assertSame(['rear_right'], array_keys($open));
        self::assertSame(EscOrderState::Failed, $open['rear_right']->state);
        self::assertStringContainsString('rear right failed', $this->page('/'));
        $this->post('/craft/curlew/12/escs/aside');
        self::assertSame([], $orders->open($this->craft()));
        self::assertStringNotContainsString('half written', $this->page('/'));
    }

    public function testNobodySoldersUnderPower(): void
    {
        $this->powered();
        $refused = $this->post('/craft/curlew/bench/swap', ['what' => 'escs', 'a' => 'front_right', 'b' => 'rear_left'], 422);
        self::assertStringContainsString('take the flight pack off first', (string) json_encode($refused));
        $refused = $this->post('/craft/curlew/bench/swap', ['what' => 'escs', 'a' => 'front_right', 'b' => 'nose'], 422);
        self::assertStringContainsString('name two places of this craft', (string) json_encode($refused));
    }

    public function testAWayBackNamesWhatItWouldOverrideAndSaysWhenItChangesNothing(): void
    {
        $this->link();
        foreach ([30, 29] as $p) {
            $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => $p]]);
            $this->post('/craft/curlew/commit', ['reason' => "P $p"]);
        }
        [$second, $first] = $this->entities()->getRepository(ChangeEntry::class)->findBy(['craft' => $this->craft()], ['id' => 'DESC']);
        self::assertStringContainsString('overrides r2', $this->page('/craft/curlew/73'));
        $refused = $this->post("/craft/curlew/changes/$first->id/back", ['over' => ''], 409);
        self::assertStringContainsString('Later changes have touched the same settings: r2', (string) json_encode($refused));
        self::assertSame([], $this->staged($this->craft()));
        $this->post("/craft/curlew/changes/$first->id/back", ['over' => '2']);
        self::assertEquals(['gain.roll.p' => 33.0], $this->staged($this->craft()));
        $this->post('/craft/curlew/commit', ['reason' => 'back']);
        $refused = $this->post("/craft/curlew/changes/$first->id/back", ['over' => '3'], 422);
        self::assertStringContainsString('Nothing would change', (string) json_encode($refused));
        self::assertSame([], $this->staged($this->craft()));
        self::assertStringContainsString('the craft stands as it did before it', $this->page('/craft/curlew/73'));
        $this->post("/craft/curlew/changes/$second->id/back", ['over' => '3']);
        self::assertEquals(['gain.roll.p' => 30.0], $this->staged($this->craft()));
    }

    /**
     * Pad map, ESCs and their settings are swapped, set and taken back at random, 200 sequences of six steps each. What the change
     * record says of each ESC, by its serial number, is what that ESC holds; and each way back did what it said.
     */
    #[Group('slow')]
    public function testEachEscHoldsWhatTheRecordSaysOfIt(): void
    {
        $this->powered();
        $dice = new Lcg(41);
        $record = $this->asRead();
        $read = 0;
        $counts = ['pads' => 0, 'swaps' => 0, 'settings' => 0, 'back' => 0];
        $sequences = Cases::many(200, 40);
        for ($sequence = 0; $sequence < $sequences; ++$sequence) {
            for ($step = 0; $step < 6; ++$step) {
                $what = array_keys($counts)[$dice->whole(0, 3)];
                ++$counts[$what];
                [$a, $b] = $this->two($dice);
                match ($what) {
                    'pads' => $this->remap($a, $b),
                    'swaps' => $this->swap($a, $b),
                    'settings' => $this->set($dice),
                    'back' => $this->goBack($dice),
                };
            }
            foreach ($this->entriesAfter($read) as $entry) {
                foreach ($entry->items as ['name' => $name, 'to' => $to]) {
                    [$place, $key] = EscTable::parts($name);
                    if (EscTable::owns($name)) {
                        $record[$entry->escs[$place] ?? 'nobody'][$key] = $to;
                    }
                }
                $read = (int) $entry->id;
            }
            foreach ($this->world()->physics->escs as $home => $model) {
                foreach ($record[$model->serial] as $key => $value) {
                    $is = $this->held($home)[$key] ?? '';
                    self::assertTrue(Setting::same($value ?? '', $is), "sequence $sequence: $model->serial holds $key $is, not $value");
                }
            }
        }
        self::assertArrayNotHasKey('nobody', $record, 'every entry says whose settings they are');
        self::assertGreaterThan($sequences / 2, min($counts));
        fwrite(\STDERR, "\n$sequences sequences: ".json_encode($counts).", $read changes on record, every ESC as the record says\n");
    }

    /** @return array{string, string} */
    private function two(Lcg $dice): array
    {
        $i = $dice->whole(0, 3);

        return [self::PLACES[$i], self::PLACES[($i + $dice->whole(1, 3)) % 4]];
    }

    /** Two outputs drive each other's places. */
    private function remap(string $a, string $b): void
    {
        $pads = array_flip(EscTable::pads($this->craft()->settings));
        $this->post('/craft/curlew/stage', ['values' => ["pad.$pads[$a].drives" => $b, "pad.$pads[$b].drives" => $a]]);
        $this->post('/craft/curlew/commit', ['reason' => "$a and $b"]);
    }

    private function set(Lcg $dice): void
    {
        $values = [];
        foreach (\array_slice(self::PLACES, $dice->whole(0, 2), $dice->whole(1, 2)) as $place) {
            $values["esc.$place.advance_deg"] = $dice->whole(5, 25);
            $values["esc.$place.starting_current_pct"] = 5 * $dice->whole(4, 12);
        }
        $this->post('/craft/curlew/stage', ['values' => $values]);
        if ([] !== $this->staged($this->craft())) {
            $this->post('/craft/curlew/commit', ['reason' => 'set']);
        }
    }

    private function goBack(Lcg $dice): void
    {
        $entries = $this->entities()->getRepository(ChangeEntry::class)->findBy(['craft' => $this->craft()], ['id' => 'DESC'], 60);
        if ([] === $entries) {
            return;
        }
        $entry = $entries[$dice->whole(0, \count($entries) - 1)];
        $way = self::getContainer()->get(WaysBack::class)->ofChanges($this->craft(), $entries)[(int) $entry->id];
        if ($way->changesNothing()) {
            $this->post("/craft/curlew/changes/$entry->id/back", ['over' => $way->seen()], 422);

            return;
        }
        $this->post("/craft/curlew/changes/$entry->id/back", ['over' => $way->seen()]);
        if (4 !== \count(array_unique(EscTable::pads($this->preview())))) {
            // Half of an older pad map: two outputs for one motor are refused, and it is dropped again.
            $this->post('/craft/curlew/commit', ['reason' => 'half'], 422);
            $this->post('/craft/curlew/discard');

            return;
        }
        $this->post('/craft/curlew/commit', ['reason' => "back to before r$entry->revision"]);
        foreach ($entry->items as ['name' => $name, 'from' => $from]) {
            [$place, $key] = EscTable::parts($name);
            if (EscTable::owns($name)) {
                $is = $this->held($this->homeWith($entry->escs[$place]))[$key] ?? '';
                self::assertTrue(Setting::same((string) $from, (string) $is) || Setting::same((float) $from, (float) $is), $name);
            }
        }
    }

    private function preview(): SettingSet
    {
        return self::getContainer()->get(Staging::class)->preview($this->craft());
    }

    private function swap(string $a, string $b): void
    {
        $this->world()->move('pack', '0');
        $this->post('/craft/curlew/bench/swap', ['what' => 'escs', 'a' => $a, 'b' => $b]);
        $this->world()->move('pack', '1');
        $this->post('/craft/curlew/escs/read');
    }

    private function powered(): void
    {
        $this->link();
        $this->world()->move('pack', '1');
        $this->post('/craft/curlew/escs/read');
    }

    private function entry(): ChangeEntry
    {
        return $this->entities()->getRepository(ChangeEntry::class)->findOneBy(['craft' => $this->craft()], ['id' => 'DESC'])
            ?? throw new \LogicException('nothing on record');
    }

    /** @return list<ChangeEntry> */
    private function entriesAfter(int $id): array
    {
        $this->entities()->clear();
        $all = $this->entities()->getRepository(ChangeEntry::class)->findBy(['craft' => $this->craft()], ['id' => 'ASC']);

        return array_values(array_filter($all, static fn (ChangeEntry $e): bool => $e->id > $id));
    }

    /** @return array<string, array<string, float|int|bool|string|null>> settings by serial number, as they were read first */
    private function asRead(): array
    {
        $craft = $this->craft();
        $read = [];
        foreach (EscTable::pads($craft->settings) as $pad => $place) {
            $identity = $craft->escs[$pad]['identity'] ?? null;
            self::assertIsArray($identity);
            $serial = EscIdentity::fromArray($identity)->serial;
            self::assertNotSame('', $serial);
            $read[$serial] = EscTable::at($place, $craft->settings)->toArray();
        }
        self::assertCount(4, $read, 'four serial numbers');

        return $read;
    }

    /** @return array<string, float|int|bool|string> what an ESC holds, by the pad that it was first soldered to */
    private function held(int $home): array
    {
        return EscState::fromMixed($this->world()->store->peek()->escs[$home] ?? null)->settings;
    }

    private function homeOf(string $place): int
    {
        return (int) array_search($place, $this->world()->physics->wiredPads, true);
    }

    private function homeWith(string $serial): int
    {
        foreach ($this->world()->physics->escs as $home => $model) {
            if ($model->serial === $serial) {
                return $home;
            }
        }
        self::fail("no ESC has the serial number $serial");
    }
}
