<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftLinked;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\Journal\ItemState;
use Ortholex\App\Settings\Journal\Journal;
use Ortholex\App\Settings\Journal\Journals;
use Ortholex\App\Settings\Journal\JournalState;
use Ortholex\App\Work\CraftLocks;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\CommitPlan;
use Ortholex\Core\Settings\EscSeats;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;

/**
 * Settings go to a craft by a journal: written down before the first byte, marked with each acknowledgement, and in the end compared
 * with what the craft really holds, whether it ended or not.
 *
 * What was interrupted, by a cable, by a loss of power or by the end of a process, is compared when the link stands again; then there
 * are two ways, to go on or to take back what was written.
 */
final readonly class Writing
{
    private const BOOT_MS = 3000;

    public function __construct(
        private EntityManagerInterface $entities,
        private Journals $journals,
        private Staging $staging,
        private Catalogue $catalogue,
        private LinkService $links,
        private Benches $benches,
        private Escs $escs,
        private CraftLocks $locks,
    ) {
    }

    /**
     * Writes settings that were checked before, whether staged or carried across a flash.
     *
     * @throws LinkError when the link goes, or an ESC does not acknowledge
     */
    public function write(Craft $craft, SettingSet $changes, string $what, string $reason): ChangeEntry
    {
        // A flash returns everything: what was interrupted before it is settled by that.
        $open = $this->journals->open($craft);
        if (null !== $open) {
            $open->state = JournalState::Settled;
        }
        $forBoard = EscTable::without($changes);
        $before = EscTable::underPadMap($craft->settings, $craft->settings->with($forBoard));
        $order = SettingSet::none();
        foreach (CommitPlan::of($forBoard, $this->catalogue, $craft->version())->rounds as $round) {
            $order = $order->with($round['changes']);
        }
        $seats = Escs::seats($craft, $craft->settings->with($forBoard));
        $journal = $this->journals->begin($craft, $what, $reason, $order->with(EscTable::only($changes)), $before, $seats);

        return $this->carryOut($craft, $journal, $changes);
    }

    /** What was set by hand on a craft that no cable reaches: the book follows, and nothing is compared. */
    public function byHand(Craft $craft, SettingSet $changes, string $reason): ChangeEntry
    {
        $items = [];
        foreach ($changes as $name => $to) {
            $items[] = ['name' => $name, 'from' => $craft->settings[$name] ?? null, 'to' => $to];
        }
        $craft->settings = $craft->settings->with($changes);
        $craft->revision = $this->nextRevision($craft);
        $entry = new ChangeEntry($craft, $craft->revision, new \DateTimeImmutable(), 'Set by hand', $reason, $items);
        $this->entities->persist($entry);
        $this->staging->written($craft, $changes);
        $this->entities->flush();

        return $entry;
    }

    /** @throws ConflictHttpException while an earlier one has not come to its end */
    public function demandNothingOpen(Craft $craft): void
    {
        if (null !== $craft->toReturn) {
            throw new ConflictHttpException(
                'The settings from before the flash are not back yet. Go on with it on sheet 12, or put it aside there; then commit.',
            );
        }
        $open = $this->journals->open($craft);
        if (null !== $open) {
            throw new ConflictHttpException(
                "“{$open->what}” of {$open->beganAt->format('H:i')} was not finished. ".
                    'Link the craft, then go on with it or take it back.',
            );
        }
    }

    /** What was interrupted, with what of it is on the craft as it was last read; null when nothing is open or someone is at it. */
    public function interrupted(Craft $craft): ?Interrupted
    {
        $journal = $this->journals->open($craft);
        if (null === $journal || (JournalState::Writing === $journal->state && $this->locks->isHeld($craft))) {
            return null;
        }

        $compared = JournalState::Writing !== $journal->state;

        return new Interrupted($journal, $compared, $this->on($craft, $journal), $this->links->isLinked($craft));
    }

    /**
     * Writes what is left of an interrupted one.
     *
     * @throws ConflictHttpException
     * @throws LinkError
     */
    public function goOn(Craft $craft): ChangeEntry
    {
        return $this->decide($craft, function (Journal $journal) use ($craft): ChangeEntry {
            $this->journals->follow($journal, Escs::seats($craft, $craft->settings->with(EscTable::without($journal->wanted()))));
            $this->journals->mark($journal, array_column($journal->items, 'name'), ItemState::Waiting);

            return $this->carryOut($craft, $journal, $journal->wanted());
        });
    }

    /**
     * Writes back what was there before it.
     *
     * @throws ConflictHttpException
     * @throws LinkError
     */
    public function takeBack(Craft $craft): ChangeEntry
    {
        return $this->decide($craft, function (Journal $journal) use ($craft): ChangeEntry {
            // The board's first: with its pad map, the places of ESCs may change back too.
            $pads = $craft->settings->with(EscTable::without($journal->before())->among($craft->settings));
            $is = EscTable::underPadMap($craft->settings, $pads);
            $seats = Escs::seats($craft, $pads);
            $before = $seats->carry($journal->before(), EscSeats::of($journal->escs));
            $back = $before->where(static fn (string $n): bool => isset($is[$n]) && !Setting::same($is[$n], $before[$n]));
            $undoing = $this->journals->begin($craft, "$journal->what taken back", $journal->reason, $back, $is, $seats);
            $journal->state = JournalState::Settled;
            $entry = $this->entryOf($journal);
            if (null !== $entry) {
                $entry->outcome = Outcome::Undone;
            }
            $this->entities->flush();

            return $this->carryOut($craft, $undoing, $back);
        });
    }

    /** When the link stands again, what was interrupted is compared with what the craft really holds. */
    #[AsEventListener]
    public function onLinked(CraftLinked $event): void
    {
        $craft = $event->craft;
        $journal = $this->journals->open($craft);
        if (null === $journal || $craft->inBootloader || !$this->locks->hold($craft)) {
            return;
        }
        try {
            $this->settle($craft, $journal, null);
            $event->said[] =
                JournalState::HalfDone === $journal->state
                    ? "“{$journal->what}” was interrupted: go on with it, or take it back."
                    : "“{$journal->what}” had been interrupted, but all of it is on the craft.";
        } finally {
            $this->locks->release($craft);
        }
    }

    /**
     * @param \Closure(Journal): ChangeEntry $act
     *
     * @throws ConflictHttpException
     * @throws LinkError
     */
    private function decide(Craft $craft, \Closure $act): ChangeEntry
    {
        if (!$this->locks->hold($craft)) {
            throw new ConflictHttpException('Other work on this craft is under way. Wait until it ends, and look again.');
        }
        try {
            $this->entities->refresh($craft);
            $journal = $this->journals->open($craft);
            if (null === $journal) {
                throw new ConflictHttpException('Nothing is left to be decided: it was settled meanwhile.');
            }
            $this->links->demandLinked($craft);

            return $act($journal);
        } finally {
            $this->locks->release($craft);
        }
    }

    /** @throws LinkError */
    private function carryOut(Craft $craft, Journal $journal, SettingSet $changes): ChangeEntry
    {
        $forBoard = EscTable::without($changes);
        $forEscs = EscTable::only($changes);
        $client = $this->benches->client($craft);
        $failure = null;
        try {
            try {
                if (!$forBoard->isEmpty()) {
                    $this->toBoard($craft, $client, $forBoard, $journal);
                }
            } catch (LinkError $e) {
                $failure = $e;
                $this->keepWhatTook($client, $journal);
            }
            $craft->takeBoard($client->readSettings());
            if (!$forEscs->isEmpty() && null === $failure) {
                $failure = $this->toEscs($craft, $forEscs, $journal);
            }
        } catch (LinkError $e) {
            // Nothing more can be known before the link stands again.
            $this->journals->failed($journal, ($failure ?? $e)->getMessage());
            throw $failure ?? $e;
        }
        $entry = $this->settle($craft, $journal, $failure);
        if (null !== $failure) {
            throw $failure;
        }

        return null !== $entry && [] === $entry->left
            ? $entry
            : throw LinkError::refused($journal->what, 'the craft does not hold what was written');
    }

    /**
     * Compares with what the craft holds as it was just read, and puts what happened on record.
     *
     * @return ChangeEntry|null null when the craft refused before anything of it was there
     */
    private function settle(Craft $craft, Journal $journal, ?LinkError $failure): ?ChangeEntry
    {
        $on = $this->on($craft, $journal);
        $craft->settings = $craft->settings->with(Escs::seats($craft)->carry(
            $journal->wanted()->where(static fn (string $n): bool => \in_array($n, $on, true)),
            EscSeats::of($journal->escs),
        ));
        $changed = [];
        foreach ($journal->items as $item) {
            if (\in_array($item['name'], $on, true) && (null === $item['from'] || !Setting::same($item['from'], $item['to']))) {
                $changed[] = ['name' => $item['name'], 'from' => $item['from'], 'to' => $item['to']];
            }
        }
        $left = array_values(array_diff(array_column($journal->items, 'name'), $on));
        $journal->problem = $failure?->getMessage() ?? $journal->problem;
        $journal->state = match (true) {
            [] === $left => JournalState::Done,
            // Nothing of it is there: it is still staged, and there is nothing to take back.
            !$this->isAnythingThere($craft, $journal) => JournalState::Settled,
            // What the craft itself refused, or an ESC did not acknowledge, stays staged: it is seen, changed and tried again there.
            null !== $failure && !$failure->lost => JournalState::Settled,
            default => JournalState::HalfDone,
        };
        $written = $journal->wanted()->where(static fn (string $n): bool => \in_array($n, $on, true));
        $seats = Escs::seats($craft, $craft->settings->with(EscTable::without($journal->wanted())));
        $this->staging->written($craft, $seats->carry($written, EscSeats::of($journal->escs)));
        $entry = [] === $changed && [] !== $left && null !== $failure ? null : $this->record($craft, $journal, $changed, $left);
        $this->entities->flush();

        return $entry;
    }

    /**
     * One entry for one writing, however often it was gone on with.
     *
     * @param list<array{name: string, from: float|int|bool|string|null, to: float|int|bool|string|null}> $changed
     * @param list<string>                                                                                $left
     */
    private function record(Craft $craft, Journal $journal, array $changed, array $left): ChangeEntry
    {
        $outcome = match (true) {
            [] === $left => Outcome::Done,
            JournalState::Settled === $journal->state && [] === $changed => Outcome::Undone,
            default => Outcome::HalfDone,
        };
        $entry = $this->entryOf($journal);
        if (null === $entry) {
            $craft->revision = $this->nextRevision($craft);
            $journal->revision = $craft->revision;
            $entry = new ChangeEntry($craft, $craft->revision, new \DateTimeImmutable(), $journal->what, $journal->reason, $changed);
            $this->entities->persist($entry);
        }
        $entry->items = $changed;
        $entry->escs = $journal->escs;
        $entry->outcome = $outcome;
        $entry->left = $left;

        return $entry;
    }

    private function entryOf(Journal $journal): ?ChangeEntry
    {
        return null === $journal->revision
            ? null
            : $this->entities
                ->getRepository(ChangeEntry::class)
                ->findOneBy(['craft' => $journal->craft, 'revision' => $journal->revision]);
    }

    /** Whether the craft holds any of it that it did not hold before, kept or not. */
    private function isAnythingThere(Craft $craft, Journal $journal): bool
    {
        foreach ($journal->items as $item) {
            $now = $this->held($craft, $journal, $item['name']);
            if (null !== $now && Setting::same($now, $item['to']) && (null === $item['from'] || !Setting::same($now, $item['from']))) {
                return true;
            }
        }

        return false;
    }

    /** @return list<string> names of what the craft holds, as it was last read, and keeps */
    private function on(Craft $craft, Journal $journal): array
    {
        $on = [];
        $kept = $journal->which(ItemState::Kept);
        $escsRead = $this->escs->isRead($craft);
        foreach ($journal->wanted() as $name => $value) {
            $now = $this->held($craft, $journal, $name);
            $acknowledged = \in_array($name, $kept, true);
            $there = null !== $now && Setting::same($now, $value);
            // An ESC keeps what it holds, and may not be there to be asked. What a board holds it forgets with its power, until it
            // has acknowledged that it keeps it.
            $is = EscTable::owns($name) ? ($escsRead ? $there : $acknowledged) : $there && $acknowledged;
            if ($is) {
                $on[] = $name;
            }
        }

        return $on;
    }

    /** What the craft held of a setting when it was last read; of an ESC, wherever that sits now. */
    private function held(Craft $craft, Journal $journal, string $name): float|int|bool|string|null
    {
        $now = Escs::seats($craft)->nameOf($name, EscSeats::of($journal->escs));

        return null === $now ? null : $craft->settings[$now] ?? null;
    }

    /**
     * The board refused one; those before it are not to go with its power.
     *
     * @throws LinkError
     */
    private function keepWhatTook(BoardClient $client, Journal $journal): void
    {
        $taken = $journal->which(ItemState::Taken);
        if ([] !== $taken) {
            $client->keepSettings();
            $this->journals->mark($journal, $taken, ItemState::Kept);
        }
    }

    private function nextRevision(Craft $craft): int
    {
        $last = $this->entities->getConnection()->fetchOne('SELECT revision FROM craft WHERE id = ?', [$craft->id]);

        return 1 + max($craft->revision, is_numeric($last) ? (int) $last : 0);
    }

    /**
     * The board first, so that an ESC is found at the place its pad now drives.
     *
     * @throws LinkError when the board or the pack is gone
     */
    private function toEscs(Craft $craft, SettingSet $changes, Journal $journal): ?LinkError
    {
        $failed = $this->escs->write($craft, $changes, function (string $place) use ($changes, $journal): void {
            $mine = array_filter($changes->names(), static fn (string $n): bool => EscTable::parts($n)[0] === $place);
            $this->journals->mark($journal, array_values($mine), ItemState::Kept);
        });
        $this->escs->read($craft);
        $asked = array_values(array_unique(array_map(static fn (string $name): string => EscTable::parts($name)[0], $changes->names())));

        return [] === $failed ? null : LinkError::escsLeft($failed, array_values(array_diff($asked, $failed)), EscClient::TRIES);
    }

    /** @throws LinkError */
    private function toBoard(Craft $craft, BoardClient $client, SettingSet $changes, Journal $journal): void
    {
        foreach (CommitPlan::of($changes, $this->catalogue, $craft->version())->rounds as $round) {
            foreach ($round['changes'] as $name => $value) {
                $client->writeSetting($name, $value);
                $this->journals->mark($journal, [$name], ItemState::Taken);
            }
            $client->keepSettings();
            $this->journals->mark($journal, $round['changes']->names(), ItemState::Kept);
            if ($round['restart']) {
                $client->restart();
                $client->awaitIdentity(self::BOOT_MS);
            }
        }
    }
}
