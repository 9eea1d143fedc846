<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Escs;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscSeats;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Migration\FateKind;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\Setting;

/** Finds the ways back: what was of an ESC goes to that ESC, wherever it sits now. */
final readonly class WaysBack
{
    public function __construct(private Catalogue $catalogue, private Staging $staging)
    {
    }

    /**
     * @param list<ChangeEntry> $entries newest first, none left out between
     *
     * @return array<int, WayBack> by id of the entry
     */
    public function ofChanges(Craft $craft, array $entries): array
    {
        $ways = [];
        $later = [];
        foreach ($entries as $entry) {
            $from = SettingSet::of(array_filter(array_column($entry->items, 'from', 'name'), static fn (mixed $v): bool => null !== $v));
            $way = $this->to($craft, $from->among($this->known($craft, $from)), EscSeats::of($entry->escs));
            $over = [];
            foreach ($entry->items as $item) {
                $over += $later[self::whose($entry, $item['name'])] ?? [];
            }
            krsort($over);
            $over = $way->changesNothing() ? [] : array_keys($over);
            $ways[(int) $entry->id] = new WayBack($way->values, $way->now, $over, $way->moved, self::images($from));
            foreach ($entry->items as $item) {
                $later[self::whose($entry, $item['name'])][$entry->revision] = true;
            }
        }

        return $ways;
    }

    public function toSnapshot(Craft $craft, Snapshot $snapshot): WayBack
    {
        if ('' === $snapshot->version) {
            return new WayBack(SettingSet::none(), SettingSet::none(), [], []);
        }
        $carried = Migration::between($this->catalogue, $snapshot->settings, Version::parse($snapshot->version), $craft->version());
        $way = $this->to($craft, $carried->settings, EscSeats::of($snapshot->escs));
        $otherwise = [FateKind::Dropped, FateKind::Clipped, FateKind::Converted];
        $fates = array_merge(...array_map(static fn (FateKind $k): array => $carried->ofKind($k), $otherwise));

        return new WayBack($way->values, $way->now, $way->over, $way->moved, $way->images, $fates);
    }

    /** @param SettingSet $then named by the places of then */
    private function to(Craft $craft, SettingSet $then, EscSeats $before): WayBack
    {
        // The board's first: with a pad map, the places of ESCs go back too.
        $forBoard = EscTable::without($then)->among($craft->settings);
        $pads = $this->staging->preview($craft)->with($forBoard);
        $seats = Escs::seats($craft, $pads);
        $now = EscTable::underPadMap($craft->settings, $pads);
        $staged = $this->staging->of($craft);
        $values = $forBoard->with($seats->carry(EscTable::only($then), $before)->among($now));
        $names = EscTable::only($then)->names();
        $moved = array_map(static fn (string $serial): string => "$serial is no longer on this craft", $seats->gone($names, $before));
        foreach ($names as $name) {
            $place = EscTable::parts($name)[0];
            $at = $seats->placeOf($place, $before);
            if (null !== $at && $at !== $place) {
                $moved[$place] = str_replace('_', ' ', "{$place}'s, now $at");
            }
        }

        return new WayBack(
            $values->where(static fn (string $n): bool => !Setting::same($values[$n], $now[$n] ?? '') || isset($staged[$n])),
            $now,
            [],
            $moved,
        );
    }

    /** Those of the board, and of every ESC that there is: where these went is found later. */
    private function known(Craft $craft, SettingSet $from): SettingSet
    {
        return $from->where(static fn (string $name): bool => EscTable::owns($name) || isset($craft->settings[$name]));
    }

    /** @return list<string> */
    private static function images(SettingSet $from): array
    {
        $images = [];
        foreach ($from as $name => $value) {
            if (EscTable::owns($name) && ChangeEntry::FIRMWARE === EscTable::parts($name)[1]) {
                $images[] = (string) $value;
            }
        }

        return array_values(array_unique($images));
    }

    /** By what a setting is known through all swaps. */
    private static function whose(ChangeEntry $entry, string $name): string
    {
        [$place, $key] = EscTable::parts($name);
        $serial = EscTable::owns($name) ? $entry->escs[$place] ?? '' : '';

        return '' === $serial ? $name : "$serial $key";
    }
}
