<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Esc\Escs;
use Ortholex\App\Record\Snapshot;
use Ortholex\Core\Link\BoardState;
use Ortholex\Core\Link\LinkError;

/** Links a board, reads what it is and holds, and knows whether the link still stands. */
final readonly class LinkService
{
    private const BOOT_MS = 3000;

    public function __construct(private Worlds $worlds, private EntityManagerInterface $entities, private Escs $escs)
    {
    }

    /**
     * Reads identity and settings; the first link takes a snapshot by itself.
     *
     * @return Snapshot|null the snapshot, if one was taken
     *
     * @throws LinkError with what is missing
     */
    public function link(Craft $craft): ?Snapshot
    {
        $world = $this->worlds->of($craft)->store->peek();
        if (!$world->cable) {
            throw LinkError::cableOut();
        }
        $client = $this->worlds->client($craft);
        try {
            $identity = $client->awaitIdentity(self::BOOT_MS);
        } catch (LinkError $e) {
            throw $e->lost ? $e : LinkError::dead();
        }
        $craft->recognise($identity);
        if (!$identity->inBootloader) {
            $craft->takeBoard($client->readSettings());
            if ($world->pack) {
                $this->escs->read($craft);
            }
        }
        $craft->linkedSince = $this->worlds->of($craft)->store->peek()->cableMoves;
        $snapshot = null;
        if (!$identity->inBootloader && 0 === $this->entities->getRepository(Snapshot::class)->count(['craft' => $craft])) {
            $snapshot = $this->snapshot($craft, 'As found at first link', true);
        }
        $this->entities->flush();

        return $snapshot;
    }

    /**
     * Reads the ESCs, which answer once the pack is on; the first time, they go into a snapshot of their own.
     *
     * @throws LinkError when the craft is not linked
     */
    public function readEscs(Craft $craft): void
    {
        $this->demandLinked($craft);
        $first = [] === $craft->escs;
        $this->escs->read($craft);
        if ($first && [] !== $craft->escs) {
            $this->snapshot($craft, 'ESCs as first found', true);
        }
        $this->entities->flush();
    }

    public function letGo(Craft $craft): void
    {
        $craft->linkedSince = null;
        $this->entities->flush();
    }

    public function isLinked(Craft $craft): bool
    {
        $world = $this->worlds->of($craft)->store->peek();

        return $world->cable && null !== $craft->linkedSince && $craft->linkedSince === $world->cableMoves;
    }

    /** @throws LinkError when it is not linked */
    public function demandLinked(Craft $craft): void
    {
        if (!$this->isLinked($craft)) {
            throw $this->worlds->of($craft)->store->peek()->cable
                ? LinkError::refused('this', 'the craft is not linked; link it on sheet 11')
                : LinkError::cableOut();
        }
    }

    /** What the board says right now; null when it is not linked, restarting, or only in its bootloader. */
    public function state(Craft $craft): ?BoardState
    {
        if (!$this->isLinked($craft) || $craft->inBootloader) {
            return null;
        }
        try {
            return $this->worlds->client($craft)->state();
        } catch (LinkError) {
            // Restarting or flashing just now: the live view shows that there is no answer.
            return null;
        }
    }

    public function snapshot(Craft $craft, string $name, bool $byItself): Snapshot
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
        );
        $this->entities->persist($snapshot);

        return $snapshot;
    }
}
