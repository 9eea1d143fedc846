<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\EscsFlashed;
use Ortholex\App\Link\EscsRead;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Outcome;
use Ortholex\App\Shelf\Shelf;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Psr\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Contracts\EventDispatcher\EventDispatcherInterface;

/**
 * Which ESCs are still to be written, kept with the craft before the first byte: a pulled cable or a killed process takes nothing
 * from it. What an ESC held before stays here until it is proved to be back.
 */
final readonly class EscOrders
{
    /** As the change record calls it. */
    public const WHAT = 'ESCs flashed';

    public function __construct(
        private EntityManagerInterface $entities,
        private Shelf $shelf,
        private ClockInterface $clock,
        private EventDispatcherInterface $events,
    ) {
    }

    /**
     * @param array<string, string> $images name of the file by place
     *
     * @return array<string, EscOrder> by place
     */
    public function begin(Craft $craft, array $images, string $key): array
    {
        $orders = [];
        foreach ($images as $place => $image) {
            $id = self::id($craft, $place);
            $known = $craft->escOrders[$id] ?? null;
            $before = null === $known ? null : EscOrder::fromArray($id, $known);
            $esc = Escs::identities($craft)[$place] ?? null;
            $ran = null === $esc?->version ? null : EscImage::keyOf($esc->family, $esc->version, $esc->switchingKhz);
            $orders[$place] = new EscOrder($id, $place, $image, $key, held: $before?->held, ran: $before->ran ?? $ran);
        }
        // All of them or none: what was ordered is known before the first is begun.
        foreach ($orders as $order) {
            $craft->escOrders = [$order->id => $order->toArray()] + $craft->escOrders;
        }
        $this->entities->flush();

        return $orders;
    }

    public function keep(Craft $craft, EscOrder $order): void
    {
        $craft->escOrders = [$order->id => $order->toArray()] + $craft->escOrders;
        $this->entities->flush();
    }

    /** It runs, and holds what it held before: that goes on record at once, whatever comes of the others. */
    public function done(Craft $craft, EscOrder $order): void
    {
        $craft->escOrders = array_diff_key($craft->escOrders, [$order->id => 1]);
        $runs = $this->keyOf($order);
        $entry = $this->newest($craft);
        if (null === $entry || Outcome::HalfDone !== $entry->outcome) {
            $seats = Escs::seats($craft)->serials;
            $why = $runs === $order->ran ? 'The same firmware was written once more.' : '';
            $entry = new ChangeEntry($craft, ++$craft->revision, $this->clock->now(), self::WHAT, $why, [], escs: $seats);
            $this->entities->persist($entry);
        }
        // What it ran before, written once more, is no change.
        if ($runs !== $order->ran) {
            $name = "esc.$order->place.".ChangeEntry::FIRMWARE;
            $entry->items = [...$entry->items, ['name' => $name, 'from' => $order->ran, 'to' => $runs]];
        }
        self::tellLeft($craft, $entry);
        $this->events->dispatch(new EscsFlashed($craft, [$order->place]));
        $this->entities->flush();
    }

    /** The entry that the change record ends with, if it is one of these. */
    private function newest(Craft $craft): ?ChangeEntry
    {
        $entry = $this->entities->getRepository(ChangeEntry::class)->findOneBy(['craft' => $craft], ['id' => 'DESC']);

        return self::WHAT === $entry?->what ? $entry : null;
    }

    private static function tellLeft(Craft $craft, ChangeEntry $entry): void
    {
        $entry->left = [];
        foreach ($craft->escOrders as $id => $left) {
            $entry->left[] = 'ESC of '.str_replace('_', ' ', EscOrder::fromArray((string) $id, $left)->place);
        }
        $entry->outcome = [] === $entry->left ? Outcome::Done : Outcome::HalfDone;
    }

    /** One whose end was never heard may have come to it all the same. */
    #[AsEventListener]
    public function onRead(EscsRead $event): void
    {
        $craft = $event->craft;
        $escs = Escs::identities($craft);
        foreach ($craft->escOrders as $id => $data) {
            $order = EscOrder::fromArray((string) $id, $data);
            $place = self::placeOf($order, $escs);
            $esc = null === $place ? null : $escs[$place];
            if (null === $place || null === $esc || !$this->runs($esc, $order)) {
                continue;
            }
            if (null === $order->held) {
                // It was never begun, and runs what was ordered: another has seen to it.
                $craft->escOrders = array_diff_key($craft->escOrders, [$id => 1]);
                $entry = $this->newest($craft);
                if (null !== $entry && Outcome::HalfDone === $entry->outcome) {
                    self::tellLeft($craft, $entry);
                }
            } elseif (self::isBack($craft, $place, $order->held)) {
                $this->done($craft, $order->at($place, $order->state));
            }
        }
    }

    /** What is left is left as it is: the snapshot of before the writing stays. */
    public function aside(Craft $craft): void
    {
        $craft->escOrders = [];
        $this->entities->flush();
    }

    /**
     * What is still to be done, by what the ESCs said of themselves when they were last read; what has come true meanwhile, however it
     * did, is not told.
     *
     * @return array<string, EscOrder> by the place where each ESC sits now
     */
    public function open(Craft $craft): array
    {
        $open = [];
        $escs = Escs::identities($craft);
        foreach ($craft->escOrders as $id => $data) {
            $order = EscOrder::fromArray((string) $id, $data);
            $place = self::placeOf($order, $escs);
            $esc = null === $place ? null : $escs[$place];
            if (null === $place) {
                $open[$order->place] = $order->at($order->place, EscOrderState::Gone);
            } elseif (null !== $esc && $this->runs($esc, $order)) {
                if (null !== $order->held && !self::isBack($craft, $place, $order->held)) {
                    $open[$place] = $order->at($place, EscOrderState::LacksSettings);
                }
            } else {
                $open[$place] = $order->at($place, $order->state);
            }
        }

        return $open;
    }

    /** Of what the ESC held before, all that it knows now. */
    private static function isBack(Craft $craft, string $place, SettingSet $held): bool
    {
        $now = EscTable::at($place, $craft->settings);
        foreach ($held->among($now) as $key => $value) {
            if (!Setting::same($value, $now[$key])) {
                return false;
            }
        }

        return true;
    }

    private function runs(EscIdentity $esc, EscOrder $order): bool
    {
        return null !== $esc->version && EscImage::keyOf($esc->family, $esc->version, $esc->switchingKhz) === $this->keyOf($order);
    }

    /** Of the release that was ordered; '' where its file is no longer on the shelf. */
    private function keyOf(EscOrder $order): string
    {
        try {
            $image = $this->shelf->escItem($order->image)->manifest;
        } catch (FirmwareError) {
            return '';
        }

        return EscImage::keyOf($image->product, $image->version, $image->switchingKhz);
    }

    /** @param array<string, EscIdentity|null> $escs by place */
    private static function placeOf(EscOrder $order, array $escs): ?string
    {
        foreach ($escs as $place => $esc) {
            if (null !== $esc && $order->id === $esc->serial) {
                return $place;
            }
        }

        // One that is silent cannot say who it is.
        return \array_key_exists($order->place, $escs) && (null === $escs[$order->place] || '' === $escs[$order->place]->serial)
            ? $order->place
            : null;
    }

    private static function id(Craft $craft, string $place): string
    {
        $serials = Escs::seats($craft)->serials;
        $serial = $serials[$place] ?? '';
        foreach ('' === $serial ? $craft->escOrders : [] as $id => $data) {
            // One that is silent now and was to be written there before is taken for the same; it is asked before it is written.
            if ($place === ($data['place'] ?? null) && !\in_array($id, $serials, true)) {
                return $id;
            }
        }

        return '' === $serial ? EscOrder::OUTPUT.array_flip(EscTable::pads($craft->settings))[$place] : $serial;
    }
}
