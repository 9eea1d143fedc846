<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\LinkService;
use Ortholex\App\Craft\Worlds;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Clash;
use Ortholex\Core\Settings\Consistency;
use Ortholex\Core\Settings\SettingError;

/** The second half of the one road: to the craft over the link, read back, into the change record. */
final readonly class Commit
{
    private const BOOT_MS = 3000;

    public function __construct(
        private EntityManagerInterface $entities,
        private Staging $staging,
        private Catalogue $catalogue,
        private LinkService $links,
        private Worlds $worlds,
    ) {
    }

    /**
     * @throws LinkError    when the link goes; what was written by then is in the record, the rest stays staged
     * @throws SettingError when the staged settings contradict each other
     */
    public function run(Craft $craft, string $reason): ChangeEntry
    {
        $changes = array_intersect_key($this->staging->of($craft), $craft->settings);
        if ([] === $changes) {
            throw SettingError::at('tray', 'nothing is staged');
        }
        $this->links->demandLinked($craft);
        foreach (Consistency::of($this->staging->preview($craft), $craft->version(), \count($this->worlds->of($craft)->physics->frame->motors), $craft->processor ?? 'F4') as $clash) {
            if (Clash::REFUSE === $clash->weight) {
                throw SettingError::at($clash->setting, rtrim(lcfirst($clash->text), '.'));
            }
        }

        return $this->apply($craft, $changes, 'Commit', $reason);
    }

    /**
     * Writes settings that were checked before, whether staged or carried across a flash.
     *
     * @param array<string, float|int|bool|string> $changes
     *
     * @throws LinkError
     */
    public function apply(Craft $craft, array $changes, string $what, string $reason): ChangeEntry
    {
        $client = $this->worlds->client($craft);
        $before = $craft->settings;
        $failure = null;
        try {
            $this->write($craft, $client, $changes);
        } catch (LinkError $e) {
            $failure = $e;
        }
        $written = [];
        try {
            $craft->settings = $client->readSettings();
        } catch (LinkError $e) {
            // Nothing more can be known: what was not kept on the board is gone with its power, so nothing counts as written.
            throw $failure ?? $e;
        }
        foreach ($changes as $name => $value) {
            $now = $craft->settings[$name] ?? null;
            if (null !== $now && Staging::same($now, $value)) {
                $written[] = ['name' => $name, 'from' => $before[$name] ?? null, 'to' => $now];
            }
        }
        if ([] === $written && null !== $failure) {
            $this->entities->flush();
            throw $failure;
        }
        ++$craft->revision;
        $entry = new ChangeEntry($craft, $craft->revision, new \DateTimeImmutable(), $what, $reason, $written);
        $this->entities->persist($entry);
        $this->entities->flush();
        $this->staging->discard($craft, array_column($written, 'name'));
        if (null !== $failure) {
            throw $failure;
        }

        return $entry;
    }

    /** @param array<string, float|int|bool|string> $changes */
    private function write(Craft $craft, BoardClient $client, array $changes): void
    {
        $restart = false;
        foreach ($changes as $name => $value) {
            $client->writeSetting($name, $value);
            $restart = $restart || $this->catalogue->get($name, $craft->version())->restart;
        }
        $client->keepSettings();
        if ($restart) {
            $client->restart();
            $client->awaitIdentity(self::BOOT_MS);
        }
    }
}
