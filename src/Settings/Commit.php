<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\CommitPlan;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Consistency;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
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
        private Benches $benches,
        private Escs $escs,
        private Airframes $frames,
        private Words $words,
    ) {
    }

    /**
     * @throws LinkError    when the link goes; what was written by then is in the record, the rest stays staged
     * @throws SettingError when the staged settings contradict each other
     */
    public function run(Craft $craft, string $reason): ChangeEntry
    {
        $changes = $this->staging->of($craft)->among($craft->settings);
        if ($changes->isEmpty()) {
            throw SettingError::because('tray', 'nothing is staged');
        }
        $this->links->demandLinked($craft);
        if (!EscTable::only($changes)->isEmpty() && !$this->escs->isRead($craft)) {
            throw LinkError::refused(
                'write to the ESCs',
                'they do not answer now. Connect the flight pack while the board is linked; if it was on before, take it off and on again',
            );
        }
        foreach (
            Consistency::of(
                $this->staging->preview($craft),
                $craft->version(),
                new Circumstances(
                    \count(($this->frames->staged($craft) ?? $this->frames->of($craft))->motors),
                    $craft->processor ?? 'F4',
                    $craft->leftOut,
                ),
            ) as $clash
        ) {
            if ($clash->refuses()) {
                throw SettingError::because($clash->setting, rtrim(lcfirst($this->words->of($clash->what)), '.'));
            }
        }

        return $this->apply($craft, $changes, 'Commit', $reason);
    }

    /**
     * Writes settings that were checked before, whether staged or carried across a flash.
     *
     * @throws LinkError
     */
    public function apply(Craft $craft, SettingSet $changes, string $what, string $reason): ChangeEntry
    {
        $client = $this->benches->client($craft);
        $forEscs = EscTable::only($changes);
        $forBoard = EscTable::without($changes);
        $before = EscTable::underPadMap($craft->settings, $craft->settings->with($forBoard));
        $failure = null;
        $written = [];
        try {
            if (!$forBoard->isEmpty()) {
                $this->write($craft, $client, $forBoard);
            }
        } catch (LinkError $e) {
            $failure = $e;
        }
        try {
            $craft->takeBoard($client->readSettings());
            if (!$forEscs->isEmpty() && null === $failure) {
                $failure = $this->toEscs($craft, $forEscs);
            }
        } catch (LinkError $e) {
            // Nothing more can be known: what was not kept on the board is gone with its power, so nothing counts as written.
            throw $failure ?? $e;
        }
        foreach ($changes as $name => $value) {
            $now = $craft->settings[$name] ?? null;
            if (null !== $now && Setting::same($now, $value)) {
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

    /**
     * The board first, so that an ESC is found at the place its pad now drives.
     */
    private function toEscs(Craft $craft, SettingSet $changes): ?LinkError
    {
        $failed = $this->escs->write($craft, $changes);
        $this->escs->read($craft);
        $asked = array_values(array_unique(array_map(static fn (string $name): string => EscTable::parts($name)[0], $changes->names())));

        return [] === $failed ? null : LinkError::escsLeft($failed, array_values(array_diff($asked, $failed)), EscClient::TRIES);
    }

    private function write(Craft $craft, BoardClient $client, SettingSet $changes): void
    {
        foreach (CommitPlan::of($changes, $this->catalogue, $craft->version())->rounds as $round) {
            foreach ($round['changes'] as $name => $value) {
                $client->writeSetting($name, $value);
            }
            $client->keepSettings();
            if ($round['restart']) {
                $client->restart();
                $client->awaitIdentity(self::BOOT_MS);
            }
        }
    }
}
