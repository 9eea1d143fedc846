<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Journal;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\EscSeats;
use Psr\Clock\ClockInterface;

/** Keeps the journal: each step is on disk before the next is begun. */
final readonly class Journals
{
    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    /**
     * @param SettingSet $changes in the order in which they are written
     * @param SettingSet $before  what they are changed from
     * @param EscSeats   $seats   which ESC sits where, by the pad map that is being written
     */
    public function begin(Craft $craft, string $what, string $reason, SettingSet $changes, SettingSet $before, EscSeats $seats): Journal
    {
        $items = [];
        foreach ($changes as $name => $value) {
            $items[] = ['name' => $name, 'from' => $before[$name] ?? null, 'to' => $value, 'state' => ItemState::Waiting->value];
        }
        $journal = new Journal($craft, $what, $reason, $this->clock->now(), $items, $seats->serials);
        $this->entities->persist($journal);
        $this->entities->flush();

        return $journal;
    }

    /** @param list<string> $names */
    public function mark(Journal $journal, array $names, ItemState $state): void
    {
        $journal->mark($names, $state);
        $this->entities
            ->getConnection()
            ->executeStatement('UPDATE journal SET items = ? WHERE id = ?', [
                json_encode($journal->items, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
                $journal->id,
            ]);
    }

    /** ESCs were moved since it was written down: what is meant for each goes with it, what has no ESC any more is left out. */
    public function follow(Journal $journal, EscSeats $now): void
    {
        $before = EscSeats::of($journal->escs);
        $gone = $now->gone(array_column($journal->items, 'name'), $before);
        $items = [];
        foreach ($journal->items as $item) {
            $name = $now->nameOf($item['name'], $before);
            if (null !== $name) {
                $items[] = ['name' => $name] + $item;
            }
        }
        $journal->items = $items;
        $journal->escs = $now->serials;
        foreach ($gone as $place => $serial) {
            $journal->problem .= " The ESC $serial, which was at $place, is no longer on the craft; what was meant for it is left out.";
        }
        $this->entities->flush();
    }

    /** Why it went no further; what of it is on the craft is found out when the link stands. */
    public function failed(Journal $journal, string $problem): void
    {
        $journal->problem = $problem;
        $this->entities->flush();
    }

    /** The one that has not come to an end, if there is one. */
    public function open(Craft $craft): ?Journal
    {
        $open = [JournalState::Writing->value, JournalState::HalfDone->value];
        if (
            false ===
            $this->entities
                ->getConnection()
                ->fetchOne('SELECT id FROM journal WHERE craft_id = ? AND state IN (?, ?) LIMIT 1', [$craft->id, ...$open])
        ) {
            return null;
        }

        return $this->entities
            ->getRepository(Journal::class)
            ->findOneBy(['craft' => $craft, 'state' => [JournalState::Writing, JournalState::HalfDone]], ['id' => 'DESC']);
    }
}
