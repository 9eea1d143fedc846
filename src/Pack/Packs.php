<?php

declare(strict_types=1);

namespace Ortholex\App\Pack;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\FlightLog\LogStored;
use Ortholex\App\Shell\BadRequest;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Pack\Discharge;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Core\Pack\PackError;
use Ortholex\Core\Pack\PackFit;
use Ortholex\Core\Pack\SourceCheck;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Contracts\Cache\CacheInterface;

/** The packs of a craft, and what its logs tell of them. */
final readonly class Packs
{
    /** So many of the newest logs are asked. */
    private const LOGS = 8;

    public function __construct(
        private LogBook $book,
        private LogStore $logs,
        private CacheInterface $cache,
        private EntityManagerInterface $entities,
    ) {
    }

    /** @return list<PackCard> */
    public function of(Craft $craft): array
    {
        return array_map(PackCard::fromArray(...), array_values($craft->packs));
    }

    public function inUse(Craft $craft): ?PackCard
    {
        foreach ($this->of($craft) as $card) {
            if ($card->inUse) {
                return $card;
            }
        }

        return null;
    }

    public function add(Craft $craft, string $name, int $cells, float $ah): void
    {
        $cards = array_map(static fn (PackCard $c): PackCard => $c->used(false), $this->of($craft));
        foreach ($cards as $card) {
            if ($card->name === $name) {
                throw BadRequest::at('name', "There is a pack “{$name}” already.");
            }
        }
        $id = 1 + max([0, ...array_map(static fn (PackCard $c): int => $c->id, $cards)]);
        $this->keep($craft, [...$cards, PackCard::fresh($id, $name, $cells, $ah)]);
    }

    public function take(Craft $craft, int $id): void
    {
        $this->keep($craft, array_map(static fn (PackCard $c): PackCard => $c->used($c->id === $id), $this->of($craft)));
    }

    public function drop(Craft $craft, int $id): void
    {
        $this->keep($craft, array_values(array_filter($this->of($craft), static fn (PackCard $c): bool => $c->id !== $id)));
    }

    /** @return list<array{Log, PackFit}> flights of a card that tell of it, oldest first */
    public function flights(Craft $craft, PackCard $card): array
    {
        $by = [];
        foreach ($this->book->of($craft) as $log) {
            $by[$log->id] = $log;
        }
        $out = [];
        foreach (\array_slice($card->logs, -self::LOGS) as $id) {
            $fit = isset($by[$id]) ? $this->fit($by[$id], $card->cells) : null;
            if (null !== $fit) {
                $out[] = [$by[$id], $fit];
            }
        }

        return $out;
    }

    /** The discharge of the pack in use by its flights, or by the newest logs where no flight was put down to a pack. */
    public function discharge(Craft $craft, int $cells, float $fullAh): ?Discharge
    {
        $card = $this->inUse($craft);
        $fits = null === $card ? [] : array_column($this->flights($craft, $card), 1);
        if ([] === $fits) {
            foreach (\array_slice($this->book->of($craft), 0, 3) as $log) {
                $fit = $this->fit($log, $cells);
                $fits = null === $fit ? $fits : [$fit, ...$fits];
            }
        }

        return Discharge::of($fits, array_fill(0, \count($fits), 0.0), $fullAh);
    }

    /** Charge that the newest log counted, Ah; null where none tells. */
    public function counted(Craft $craft, int $cells): ?float
    {
        $log = $this->book->of($craft)[0] ?? null;

        return null === $log ? null : $this->fit($log, $cells)?->chargeAh;
    }

    /** What is wrong with the voltage of the newest log. */
    public function wrongSource(Craft $craft, int $cells): ?Fact
    {
        $log = $this->book->of($craft)[0] ?? null;

        return null === $log ? null : $this->cache->get("pack_source.$log->id.$cells", function () use ($log, $cells): ?Fact {
            try {
                return SourceCheck::of($this->logs->load($log, ['battery_v', 'current_a']), $cells);
            } catch (LogError) {
                return null;
            }
        });
    }

    private function fit(Log $log, int $cells): ?PackFit
    {
        return $this->cache->get("pack_fit.$log->id.$cells", function () use ($log, $cells): ?PackFit {
            try {
                return PackFit::of($this->logs->load($log, ['battery_v', 'current_a']), $cells);
            } catch (LogError|PackError) {
                // A short or foreign log tells nothing of the pack: others do.
                return null;
            }
        });
    }

    /** A flight is put down to the pack in use. */
    #[AsEventListener]
    public function onStored(LogStored $event): void
    {
        $craft = $event->log->craft;
        $cards = $this->of($craft);
        foreach ($cards as $i => $card) {
            if ($card->inUse) {
                $cards[$i] = $card->flownIn((int) $event->log->id);
                $this->keep($craft, $cards);

                return;
            }
        }
    }

    /** @param array<PackCard> $cards */
    private function keep(Craft $craft, array $cards): void
    {
        $craft->packs = array_values(array_map(static fn (PackCard $c): array => $c->toArray(), $cards));
        $this->entities->flush();
    }
}
