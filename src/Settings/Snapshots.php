<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\CraftLinked;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\EscsFound;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;

/** Full copies of the settings; the first is taken by itself, before anything is changed. */
final readonly class Snapshots
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** Of what is known of the craft now; kept with the next flush. */
    public function take(Craft $craft, string $name, bool $byItself): Snapshot
    {
        $snapshot = new Snapshot(
            $craft,
            $name,
            $byItself,
            $craft->board ?? '',
            $craft->version ?? '',
            $craft->settings,
            new \DateTimeImmutable(),
            $craft->revision,
            Escs::seats($craft)->serials,
        );
        $this->entities->persist($snapshot);

        return $snapshot;
    }

    /** @return list<Snapshot> oldest first, without those put away */
    public function of(Craft $craft): array
    {
        return $this->entities->getRepository(Snapshot::class)->findBy(['craft' => $craft, 'putAwayAt' => null], ['id' => 'ASC']);
    }

    /** @return list<Snapshot> oldest first */
    public function putAway(Craft $craft): array
    {
        $away = static fn (Snapshot $s): bool => null !== $s->putAwayAt;

        return array_values(
            array_filter($this->entities->getRepository(Snapshot::class)->findBy(['craft' => $craft], ['id' => 'ASC']), $away),
        );
    }

    public function newest(Craft $craft): ?Snapshot
    {
        return $this->entities->getRepository(Snapshot::class)->findOneBy(['craft' => $craft, 'putAwayAt' => null], ['id' => 'DESC']);
    }

    #[AsEventListener]
    public function onLinked(CraftLinked $event): void
    {
        if (!$event->craft->inBootloader && 0 === $this->entities->getRepository(Snapshot::class)->count(['craft' => $event->craft])) {
            $this->take($event->craft, 'As found at first link', true);
            $event->said[] = 'A snapshot of everything was taken before anything is changed.';
        }
    }

    #[AsEventListener]
    public function onEscsFound(EscsFound $event): void
    {
        if (null === $event->believed) {
            $this->take($event->craft, 'ESCs as first found', true);
        }
    }
}
