<?php

declare(strict_types=1);

namespace Ortholex\App\Identity\Believed;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\CraftLinked;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\EscsFound;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Journal\Journals;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Difference;
use Ortholex\Core\Settings\EscSeats;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;
use Psr\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;

/**
 * What the book believed of a craft and found otherwise at linking. Nothing is decided by itself: what the book had is kept until the
 * builder says which stands, however often the craft is linked meanwhile.
 */
final readonly class Beliefs
{
    public const WHAT = 'Changed elsewhere';

    public function __construct(
        private EntityManagerInterface $entities,
        private Journals $journals,
        private Staging $staging,
        private ClockInterface $clock,
    ) {
    }

    /** Before what was interrupted is settled: its own settings are not doubted here. */
    #[AsEventListener(priority: 10)]
    public function onLinked(CraftLinked $event): void
    {
        $new = $this->compare($event->craft, $event->believed, $event->seats, $event->readAt?->format('Y-m-d H:i') ?? '');
        $event->said = [...$event->said, ...self::said($new)];
    }

    /** @return list<string> */
    private static function said(int $new): array
    {
        return match (true) {
            $new < 1 => [],
            1 === $new => ['One setting is not as the book had it: say on 11 which stands.'],
            default => ["$new settings are not as the book had them: say on 11 which stand."],
        };
    }

    /** ESCs answer only once the pack is on, after the board was linked. */
    #[AsEventListener]
    public function onEscsFound(EscsFound $event): void
    {
        $new = $this->compare($event->craft, $event->believed, $event->seats, $event->craft->readAt?->format('Y-m-d H:i') ?? '');
        $event->said = self::said($new);
    }

    /**
     * @param array<string, string> $seats serial number of the ESC at each place, as the book had them
     *
     * @return int how many were found that had not been asked about
     */
    private function compare(Craft $craft, ?SettingSet $believed, array $seats, string $read): int
    {
        [$then, $now] = [EscSeats::of($seats), Escs::seats($craft)];
        $craft->believed = self::carried($craft->believed, $then, $now);
        if (null === $believed || $craft->inBootloader || null !== $craft->toReturn) {
            return 0;
        }
        $journal = $this->journals->open($craft);
        $own = [];
        if (null !== $journal) {
            $meant = EscSeats::of($journal->escs);
            $own = array_map(static fn (string $name): ?string => $now->nameOf($name, $meant), array_column($journal->items, 'name'));
        }
        $new = 0;
        // What has come true since it was asked is asked no more.
        $craft->believed = array_intersect_key($craft->believed, array_column($this->open($craft), null, 'name'));
        foreach (Difference::between($now->carry($believed, $then), $craft->settings) as $one) {
            $isOurs = \in_array($one->name, $own, true)
                || (EscTable::owns($one->name) && !self::isKnownEsc($craft, $then, $now, $one->name));
            if (!$isOurs && !isset($craft->believed[$one->name])) {
                $craft->believed[$one->name] = ['value' => $one->book, 'read' => $read, 'at' => self::seatOf($one->name, $then, $now)];
                ++$new;
            }
        }

        return $new;
    }

    /** @return list<Difference> what is still to be said; what has come true meanwhile is none any more */
    public function open(Craft $craft): array
    {
        $out = [];
        foreach ($craft->believed as $name => ['value' => $value]) {
            if ($craft->settings->has($name) && !Setting::same($value, $craft->settings[$name])) {
                $out[] = new Difference($name, $value, $craft->settings[$name]);
            }
        }

        return $out;
    }

    /**
     * The builder has said which stands. What the craft has goes into the change record, what the book had is staged; all or none.
     *
     * @param array<string, Stands> $stands by setting; what is not named stays open
     *
     * @throws SettingError when what the book had cannot be on the craft as it is now
     */
    public function decide(Craft $craft, array $stands): Decided
    {
        $kept = $staged = [];
        foreach ($this->open($craft) as $one) {
            match ($stands[$one->name] ?? null) {
                Stands::Craft => $kept[] = ['name' => $one->name, 'from' => $one->book, 'to' => $one->craft],
                Stands::Book => $staged[$one->name] = $one->book,
                null => null,
            };
        }
        // What is staged already was meant by the builder later than what the book had.
        $later = $this->staging->of($craft);
        $staged = array_filter($staged, static fn (string $name): bool => !$later->has($name), \ARRAY_FILTER_USE_KEY);
        $this->entities->wrapInTransaction(function () use ($craft, $stands, $kept, $staged): void {
            if ([] !== $staged) {
                $this->staging->stage($craft, $staged);
            }
            if ([] !== $kept) {
                ++$craft->revision;
                $why = 'found on the craft, and left as it is';
                $seats = Escs::seats($craft)->serials;
                $this->entities->persist(
                    new ChangeEntry($craft, $craft->revision, $this->clock->now(), self::WHAT, $why, $kept, escs: $seats),
                );
            }
            $craft->believed = array_diff_key($craft->believed, $stands);
        });

        return new Decided(\count($kept), \count($staged));
    }

    /**
     * What is still to be said goes with its ESC to where that sits now; with one that is gone it goes, too.
     *
     * @param array<string, array{value: float|int|bool|string, read: string, at?: string}> $believed
     *
     * @return array<string, array{value: float|int|bool|string, read: string, at?: string}>
     */
    private static function carried(array $believed, EscSeats $then, EscSeats $now): array
    {
        $carried = [];
        foreach ($believed as $name => $one) {
            $to = $now->nameOf($name, $then);
            if ($to === $name) {
                $carried[$name] = $one;
            } elseif (null !== $to) {
                $at = ($one['at'] ?? '') ?: EscTable::parts($name)[0];
                $carried[$to] = ['at' => $at === EscTable::parts($to)[0] ? '' : $at] + $one;
            }
        }

        return $carried;
    }

    /** Where the ESC behind a setting sat when its settings were last read; '' where it sits there still, or it is none of an ESC. */
    private static function seatOf(string $name, EscSeats $then, EscSeats $now): string
    {
        $place = EscTable::owns($name) ? EscTable::parts($name)[0] : '';
        $was = '' === $place ? null : $then->placeOf($place, $now);

        return $was === $place ? '' : $was ?? '';
    }

    /** An ESC that was changed for another holds what it holds; one whose firmware is still being written gets its settings by that. */
    private static function isKnownEsc(Craft $craft, EscSeats $then, EscSeats $now, string $name): bool
    {
        $serial = $now->serials[EscTable::parts($name)[0]] ?? '';

        return '' !== $serial && \in_array($serial, $then->serials, true) && !isset($craft->escOrders[$serial]);
    }
}
