<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Link\BoardState;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\World\CannotKeep;
use Symfony\Contracts\EventDispatcher\EventDispatcherInterface;

/** Links a board, reads what it is and holds, and knows whether the link still stands. */
final readonly class LinkService
{
    private const BOOT_MS = 3000;

    public function __construct(
        private Benches $benches,
        private EntityManagerInterface $entities,
        private Escs $escs,
        private EventDispatcherInterface $events,
    ) {
    }

    /**
     * Reads identity and settings, and tells whoever waits for that.
     *
     * @return CraftLinked with what is to be said of it
     *
     * @throws LinkError with what is missing
     */
    public function link(Craft $craft): CraftLinked
    {
        $world = $this->benches->of($craft)->state();
        if (!$world->cable) {
            throw LinkError::cableOut();
        }
        $client = $this->benches->client($craft);
        try {
            $identity = $client->awaitIdentity(self::BOOT_MS);
        } catch (LinkError $e) {
            throw $e->lost ? $e : LinkError::dead();
        }
        $believed = $craft->settings->isEmpty() ? null : $craft->settings;
        [$readAt, $seats] = [$craft->readAt, Escs::seats($craft)->serials];
        $craft->recognise($identity);
        if (!$identity->inBootloader) {
            $craft->takeBoard($client->readSettings());
            if ($world->pack) {
                $this->escs->read($craft);
            }
        }
        $this->holds($craft);
        $event = new CraftLinked($craft, $believed, $readAt, $seats);
        $this->events->dispatch($event);
        $this->entities->flush();

        return $event;
    }

    /**
     * Reads the ESCs, which answer once the pack is on, and tells whoever waits for that.
     *
     * @return list<string> what is to be said of it, in sentences
     *
     * @throws LinkError when the craft is not linked
     */
    public function readEscs(Craft $craft): array
    {
        $this->demandLinked($craft);
        [$believed, $seats] = [[] === $craft->escs ? null : $craft->settings, Escs::seats($craft)->serials];
        $this->escs->read($craft);
        $found = new EscsFound($craft, $believed, $seats);
        if ([] !== $craft->escs) {
            $this->events->dispatch($found);
        }
        $this->entities->flush();

        return $found->said;
    }

    /** The link stands for as long as the cable stays as it is now. */
    public function holds(Craft $craft): void
    {
        $craft->linkedSince = $this->benches->of($craft)->state()->cableMoves;
    }

    public function letGo(Craft $craft): void
    {
        $craft->linkedSince = null;
        $this->entities->flush();
    }

    public function isLinked(Craft $craft): bool
    {
        $world = $this->benches->of($craft)->state();

        return $world->cable && null !== $craft->linkedSince && $craft->linkedSince === $world->cableMoves;
    }

    /** @throws LinkError when it is not linked */
    public function demandLinked(Craft $craft): void
    {
        if (!$this->isLinked($craft)) {
            throw $this->benches->of($craft)->state()->cable
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
            return $this->benches->client($craft)->state();
        } catch (LinkError|CannotKeep) {
            // Restarting or flashing just now, or the bench cannot be written to: the live view shows that there is no answer.
            return null;
        }
    }
}
