<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Commit;
use Ortholex\App\Settings\Interrupted;
use Ortholex\App\Settings\Outcome;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Settings\Writing;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\RequestStack;

/**
 * A Commit is struck at every single message of it: by a pulled cable, by a loss of all power, by the end of its process; before the
 * message reaches the craft and after. Whatever happened, the record says what the craft holds, and both ways on end well.
 */
final class CommitUnderFaultsTest extends FaultCase
{
    /** Entries that were on record before anything was struck. */
    private int $entered = 0;

    /** Writes to the book that an undisturbed Commit takes. */
    private int $writes = 0;

    /** @return iterable<string, array{string, array<string, mixed>}> craft, what is staged */
    public static function commits(): iterable
    {
        yield 'Curlew: gains, an answer of the loop rate with a restart, two ESCs' => ['curlew', [
            'gain.roll.p' => 31,
            'gain.pitch.d' => 3.3,
            'motors.loop_rate_hz' => '1000',
            'esc.front_left.tone_loudness_pct' => 40,
            'esc.rear_right.advance_deg' => 16,
        ]];
        yield 'Bittern: a feature first, then the job that needs it' => ['bittern', [
            'telemetry.enabled' => true,
            'uart.3.role' => 'telemetry',
            'd_path.stage.1.cutoff_hz' => 90,
        ]];
        yield 'Dunlin: all its ESCs' => ['dunlin', [
            'gain.yaw.p' => 38,
            'esc.front_left.starting_current_pct' => 45,
            'esc.front_right.starting_current_pct' => 45,
            'esc.rear_left.starting_current_pct' => 45,
            'esc.rear_right.starting_current_pct' => 45,
        ]];
    }

    /** @param array<string, mixed> $staged */
    #[DataProvider('commits'), Group('faults')]
    public function testWhateverStrikesItTheRecordSaysWhatTheCraftHolds(string $slug, array $staged): void
    {
        $this->powered($slug);
        $this->service(Staging::class)->stage($this->craft($slug), $staged);
        self::assertCount(\count($staged), $this->service(Staging::class)->of($this->craft($slug)));
        $this->strikeEverywhere($slug, 'Commit');
    }

    /** @return iterable<string, array{string, array<string, mixed>}> craft, what has been changed since the snapshot */
    public static function restores(): iterable
    {
        yield 'Curlew' => ['curlew', ['gain.roll.p' => 31, 'motors.idle_pct' => 6, 'esc.front_left.tone_loudness_pct' => 40]];
        yield 'Bittern' => ['bittern', ['gain.yaw.p' => 38, 'd_path.stage.1.cutoff_hz' => 90]];
        yield 'Dunlin' => ['dunlin', ['gain.roll.p' => 31, 'esc.rear_left.starting_current_pct' => 45]];
    }

    /** @param array<string, mixed> $changed */
    #[DataProvider('restores'), Group('faults')]
    public function testARestoreIsNoLess(string $slug, array $changed): void
    {
        $this->powered($slug);
        $snapshot = $this->service(Snapshots::class)->newest($this->craft($slug));
        self::assertSame('ESCs as first found', $snapshot?->name);
        $this->service(Staging::class)->stage($this->craft($slug), $changed);
        $this->post("/craft/$slug/commit", ['reason' => 'tried']);
        $this->post("/craft/$slug/snapshots/$snapshot->id/stage");
        $this->entities()->clear();
        $this->strikeEverywhere($slug, 'restore');
    }

    /** Every message, every blow, before it and after; from each on by either way. */
    private function strikeEverywhere(string $slug, string $of): void
    {
        $wanted = $this->service(Staging::class)->of($this->craft($slug));
        $this->entered = \count($this->entries($slug));
        $before = $this->holds($slug, $wanted->names());
        $messages = $this->counted($slug);
        self::assertGreaterThan(4, $messages);
        $strokes = $half = $full = 0;
        foreach (self::strokes($messages) as [$at, $blow, $after]) {
            foreach (['go on', 'take back'] as $way) {
                $left = $this->struck($slug, $wanted, $before, $at, $blow, $after, $way);
                $half += $left ? 1 : 0;
                $strokes += null === $left ? 0 : 1;
            }
        }
        $writes = $this->writes;
        for ($at = 1; $at <= $writes; ++$at) {
            foreach (['go on', 'take back'] as $way) {
                $left = $this->struck($slug, $wanted, $before, $at, null, false, $way);
                $half += $left ? 1 : 0;
                $full += null === $left ? 0 : 1;
            }
        }
        // A board that restarts is asked again and again until it answers: not every run has as many.
        self::assertGreaterThanOrEqual(16 * ($messages - 2), $strokes);
        self::assertGreaterThanOrEqual(2 * $writes - 4, $full, self::AS_OFTEN);
        self::assertGreaterThan(5, $half, 'many of them leave it half done');
        $said = "$strokes strokes, and $full at its $writes writes to the book, $half of them left it half done, all sound";
        fwrite(\STDERR, "\n$slug: a $of of $messages messages, $said\n");
    }

    /**
     * @param Blow|null $blow at that message; null for a disk that is full at that write to the book
     *
     * @return bool|null whether it was left half done; null when it had fewer messages this time
     */
    private function struck(string $slug, SettingSet $wanted, SettingSet $before, int $at, ?Blow $blow, bool $after, string $way): ?bool
    {
        $what = "$slug, ".(null === $blow ? "write $at" : "message $at, {$blow->value}").($after ? ' after it' : ' before it').", $way";
        $mark = $this->mark($slug);
        try {
            null === $blow ? FullDisk::fillAt($at) : Plan::lay($blow, $at, $after);
            $killed = false;
            try {
                $this->commit($slug, 'under fire');
            } catch (LinkError) {
            } catch (Killed) {
                $killed = true;
            } catch (\Throwable $e) {
                self::assertTrue(self::isFull($e), "$what: ".$e->getMessage());
            }
            if (!Plan::$fell && !FullDisk::$full) {
                return null;
            }
            $this->makeRoom();
            // It goes on as people do: what was pulled is plugged in, and the craft is linked again.
            $this->again($slug);
            $interrupted = $this->service(Writing::class)->interrupted($this->craft($slug));
            $this->assertTruth($slug, $wanted, $before, $interrupted, $what);
            if (null !== $interrupted) {
                self::assertTrue($interrupted->compared, $what);
                'go on' === $way
                    ? $this->service(Writing::class)->goOn($this->craft($slug))
                    : $this->service(Writing::class)->takeBack($this->craft($slug));
            } elseif (!$this->service(Staging::class)->of($this->craft($slug))->isEmpty()) {
                $this->commit($slug, 'once more');
            } else {
                self::assertSame($wanted->toArray(), $this->holds($slug, $wanted->names())->toArray(), $what);
            }
            $this->entities()->clear();
            $end = null !== $interrupted && 'take back' === $way ? $before : $wanted;
            self::assertTrue(self::same($end, $this->holds($slug, $wanted->names())), "$what: it ends sound");
            self::assertNull($this->service(Writing::class)->interrupted($this->craft($slug)), $what);
            $entries = $this->entries($slug);
            self::assertNotSame([], $entries, $what);
            foreach ($entries as $entry) {
                foreach ($entry->items as $item) {
                    self::assertFalse(
                        null !== $item['from'] && null !== $item['to'] && Setting::same($item['from'], $item['to']),
                        "$what: an entry says {$item['name']} became what it was",
                    );
                }
            }
            $revisions = array_map(static fn (ChangeEntry $e): int => $e->revision, $entries);
            self::assertSame($revisions, array_unique($revisions), $what);
            self::assertTrue($killed || Blow::Kill !== $blow);

            return null !== $interrupted;
        } finally {
            $this->backTo($mark, $slug);
        }
    }

    /** The sheets, the record and the tray say what the craft really holds. */
    private function assertTruth(string $slug, SettingSet $wanted, SettingSet $before, ?Interrupted $interrupted, string $what): void
    {
        $craft = $this->craft($slug);
        $holds = $this->holds($slug, $wanted->names());
        $runs = $this->runs($slug, $wanted->names());
        $staged = $this->service(Staging::class)->of($craft);
        foreach ($wanted as $name => $value) {
            self::assertTrue(Setting::same($craft->settings[$name], $runs[$name]), "$what: the sheets say $name as it is");
        }
        $entry = $this->entries($slug)[0] ?? null;
        foreach ($entry->items ?? [] as $item) {
            self::assertNotNull($item['to']);
            self::assertTrue(Setting::same($item['to'], $holds[$item['name']]), "$what: the record says {$item['name']} as it is kept");
        }
        foreach ($entry->left ?? [] as $name) {
            self::assertTrue(isset($staged[$name]), "$what: $name is not on the craft, and still staged");
        }
        if (Outcome::Done === $entry?->outcome) {
            self::assertTrue(self::same($wanted, $holds), "$what: done is done");
            self::assertTrue($staged->isEmpty(), $what);
        }
        if (self::same($wanted, $holds)) {
            return;
        }
        if (!self::same($before, $runs)) {
            self::assertNotNull($interrupted, "$what: half done is told");
            self::assertSame(Outcome::HalfDone, $entry?->outcome, $what);
            self::assertEqualsCanonicalizing($wanted->names(), [...$interrupted->on, ...$interrupted->left()]);
        } else {
            self::assertCount(\count($wanted), $staged, "$what: nothing is on the craft, all is staged");
        }
    }

    /** How many messages a whole Commit takes, when nothing happens. */
    private function counted(string $slug): int
    {
        $mark = $this->mark($slug);
        Plan::lay(Blow::Cable, \PHP_INT_MAX, false);
        FullDisk::fillAt(\PHP_INT_MAX);
        $this->commit($slug, 'undisturbed');
        $sent = Plan::$sent;
        $this->writes = FullDisk::$writes;
        $this->backTo($mark, $slug);

        return $sent;
    }

    private function commit(string $slug, string $reason): void
    {
        $craft = $this->craft($slug);
        $stack = $this->service(RequestStack::class);
        $stack->push(Request::create('/', 'POST', ['seen' => (string) $this->service(Staging::class)->revision($craft)]));
        try {
            $this->service(Commit::class)->run($craft, $reason);
        } finally {
            $stack->pop();
        }
    }

    /**
     * @param list<string> $names
     *
     * @return SettingSet what board and ESCs keep through a loss of power
     */
    private function holds(string $slug, array $names): SettingSet
    {
        return $this->physically($slug, $names, false);
    }

    /**
     * @param list<string> $names
     *
     * @return SettingSet what they work with now
     */
    private function runs(string $slug, array $names): SettingSet
    {
        return $this->physically($slug, $names, true);
    }

    /** @param list<string> $names */
    private function physically(string $slug, array $names, bool $now): SettingSet
    {
        $state = $this->world($slug)->store->peek();
        $board = SettingSet::of($now ? $state->running : $state->kept);
        $pads = array_flip(EscTable::pads($board));
        $values = [];
        foreach ($names as $name) {
            if (EscTable::owns($name)) {
                [$place, $key] = EscTable::parts($name);
                $values[$name] = $state->esc($pads[$place])->settings[$key];
            } else {
                $values[$name] = $board[$name];
            }
        }

        return SettingSet::of($values);
    }

    private static function same(SettingSet $a, SettingSet $b): bool
    {
        foreach ($a as $name => $value) {
            if (!Setting::same($value, $b[$name])) {
                return false;
            }
        }

        return true;
    }

    /** @return list<ChangeEntry> newest first */
    private function entries(string $slug): array
    {
        $all = $this->entities()
            ->getRepository(ChangeEntry::class)
            ->findBy(['craft' => $this->craft($slug)], ['id' => 'DESC']);

        return \array_slice($all, 0, \count($all) - $this->entered);
    }
}
