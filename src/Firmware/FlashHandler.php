<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\BoardFlashed;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Settings\Writing;
use Ortholex\App\Shelf\Shelf;
use Ortholex\App\Shelf\ShelfItem;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobPhase;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\JobStep;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\BoardIdentity;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\PageWriter;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Migration\Fate;
use Ortholex\Core\Settings\Migration\FateKind;
use Ortholex\Core\Settings\Migration\Migration;
use Symfony\Contracts\EventDispatcher\EventDispatcherInterface;

/**
 * Writes an image to a board: snapshot, bootloader, pages, read-back, restart, version, settings.
 *
 * Started again after an interruption it finds the board in its bootloader, skips the pages that already hold
 * what they should, and goes on; the snapshot to restore is kept with the craft's record, not with the process.
 */
final readonly class FlashHandler implements JobHandler
{
    private const BOOT_MS = 4000;

    public function __construct(
        private Shelf $shelf,
        private Benches $benches,
        private LinkService $links,
        private Snapshots $snapshots,
        private Writing $writing,
        private Staging $staging,
        private Catalogue $catalogue,
        private EntityManagerInterface $entities,
        private Words $words,
        private EventDispatcherInterface $events,
    ) {
    }

    public function kind(): string
    {
        return 'flash';
    }

    public function route(): string
    {
        return 'firmware';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $keep = true === ($job->parameters['keep'] ?? true);
        $typed = \is_string($job->parameters['typed'] ?? null) ? $job->parameters['typed'] : '';
        $item = $this->shelf->item(\is_string($job->parameters['image'] ?? null) ? $job->parameters['image'] : '');
        $client = $this->benches->client($craft);
        $progress->at(0.0, 'asking the board who it is');
        $identity = $client->awaitIdentity(self::BOOT_MS);
        $craft->recognise($identity);

        $image = Shelf::read($item->path);
        $fit = $this->shelf->fit($item, $identity, []);
        if (!$fit->mayBeWritten() || ($fit->needsTypedName() && 0 !== strcasecmp(trim($typed), $identity->board))) {
            throw FirmwareError::because('The image was not written. '.implode(' ', $this->words->all($fit->reasons)));
        }

        $resume = true === ($job->parameters['resume'] ?? false);
        $this->nameWhatReturns($job, $identity, $item, $progress);
        // Interrupted after the new firmware had started: it is written; only the settings are not back yet.
        $written = $resume && null !== $identity->version && 0 === $item->manifest?->version->compare($identity->version);
        if ($written) {
            $skip = 0;
            $pages = [];
        } else {
            [$pages, $skip, $identity] = $this->writeImage($craft, $client, $image, $identity, $resume, $progress);
            if (!$keep) {
                $client->wipeSettings();
            }
            $progress->at(0.93, 'restarting the board');
            $client->run();
            $identity = $this->awaitStart($client);
        }
        $craft->recognise($identity);
        $version = $identity->version ?? throw FirmwareError::because('The board does not say which version it runs.');
        if (null !== $item->manifest && 0 !== $item->manifest->version->compare($version)) {
            throw FirmwareError::because(
                'The board answers with version '.
                    $version->toString().
                    ' instead of '.
                    $item->manifest->version->toString().
                    '.',
            );
        }
        $progress->at(0.95, 'returning the settings');
        $craft->takeBoard($client->readSettings());
        $this->links->holds($craft);
        $this->events->dispatch(new BoardFlashed($craft, $version));
        $snapshot = null === $craft->toReturn ? null : $this->entities->find(Snapshot::class, $craft->toReturn);
        $report = $keep ? $this->returnSettings($craft, $snapshot, $version) : $this->noteWipe($craft, $version);
        $craft->toReturn = null;
        $this->entities->flush();
        $from = null === $snapshot || '' === $snapshot->version ? $version : Version::parse($snapshot->version);
        $report['staged'] = $this->rows($this->staging->carry($craft, $from, $version));

        return ['version' => $version->toString(), 'kept' => $keep, 'skipped' => $skip, 'pages' => \count($pages)] + $report;
    }

    /** @return array<string, mixed> */
    private function returnSettings(Craft $craft, ?Snapshot $snapshot, Version $now): array
    {
        if (null === $snapshot || '' === $snapshot->version) {
            return ['report' => [], 'note' => 'No snapshot from before was found, so the settings are the firmware\'s defaults.'];
        }
        $migration = Migration::between($this->catalogue, EscTable::without($snapshot->settings), Version::parse($snapshot->version), $now);
        $changes = [];
        // What an earlier run had written, and not been told to be kept, is there only until the power goes.
        $unkept = $this->writing->interrupted($craft)?->left() ?? [];
        foreach ($migration->settings as $name => $value) {
            if (!isset($craft->settings[$name]) || $craft->settings[$name] !== $value || \in_array($name, $unkept, true)) {
                $changes[$name] = $value;
            }
        }
        $what = "Flash: {$snapshot->version} to ".$now->toString();
        $counts = [];
        foreach (FateKind::cases() as $kind) {
            $count = \count($migration->ofKind($kind));
            if ($count > 0) {
                $counts[] = "$count ".$this->words->of($kind);
            }
        }
        $reason = 'Settings returned: '.implode(', ', $counts).'.';
        if ([] === $changes) {
            $this->record($craft, $what, $reason);
        } else {
            $this->writing->write($craft, SettingSet::of($changes), $what, $reason);
        }

        return [
            'report' => $this->rows($migration->fates),
            'from' => $snapshot->version,
            'changed' => \count(array_filter($migration->fates, static fn (Fate $f): bool => FateKind::Kept !== $f->kind)),
        ];
    }

    /**
     * What is to come back is named before the board forgets it, and named by the craft until it is back: a second run after an
     * interruption returns what was there before the first.
     */
    private function nameWhatReturns(Job $job, BoardIdentity $identity, ShelfItem $item, JobProgress $progress): void
    {
        $craft = $job->craft;
        if (null !== $craft->toReturn) {
            return;
        }
        $progress->at(0.01, 'taking a snapshot of all settings');
        $chosen = $job->parameters['return'] ?? null;
        if (!$identity->inBootloader) {
            $craft->takeBoard($this->benches->client($craft)->readSettings());
            $snapshot = $this->snapshots->take(
                $craft,
                'Before flashing '.($item->manifest?->version->toString() ?? 'an image from disk'),
                true,
            );
        } elseif (\is_int($chosen)) {
            $snapshot = $this->entities->getRepository(Snapshot::class)->findOneBy(['craft' => $craft, 'id' => $chosen]);
        } elseif (!$craft->settings->isEmpty()) {
            // The board cannot be asked any more: what it was last read to hold is what it held before the mishap.
            $snapshot = $this->snapshots->take($craft, 'As last read, before the rescue', true);
        } else {
            $snapshot = null;
        }
        $this->entities->flush();
        $craft->toReturn = $snapshot?->id;
        $this->entities->flush();
    }

    /** @return array{array<mixed>, int, BoardIdentity} pages, how many of them were there already, and the board in its bootloader */
    private function writeImage(
        Craft $craft,
        BoardClient $client,
        HexImage $image,
        BoardIdentity $identity,
        bool $resume,
        JobProgress $progress,
    ): array {
        if (!$identity->inBootloader) {
            $progress->at(0.02, 'entering the bootloader');
            $client->toBootloader();
            $identity = $client->awaitIdentity(self::BOOT_MS);
            if (!$identity->inBootloader) {
                throw FirmwareError::because(
                    'The board did not stay in its bootloader. Hold its bootloader button on the bench strip, and try again.',
                );
            }
        }
        $craft->inBootloader = true;
        $this->entities->flush();
        $writer = new PageWriter($client);
        $pages = PageWriter::pages($image, $identity->flashFrom, $identity->pageBytes);
        $skip = $resume ? $writer->alreadyWritten($pages) : 0;
        $started = hrtime(true) / 1e9;
        $writer->write($pages, $skip, static function (int $done, int $of) use ($progress, $started, $skip): void {
            $left = $done > $skip ? ((hrtime(true) / 1e9 - $started) / ($done - $skip)) * ($of - $done) : null;
            $progress->at(
                0.03 + (0.72 * $done) / $of,
                "writing page $done of $of",
                new JobStep(JobPhase::Write, $done, $of, leftS: $left),
            );
        });
        $writer->verify(
            $pages,
            static fn (int $done, int $of) => $progress->at(
                0.75 + (0.17 * $done) / $of,
                "reading back page $done of $of",
                new JobStep(JobPhase::Verify, $done, $of),
            ),
        );

        return [$pages, $skip, $identity];
    }

    /** The new firmware, as it says who it is. */
    private function awaitStart(BoardClient $client): BoardIdentity
    {
        try {
            $identity = $client->awaitIdentity(self::BOOT_MS);
        } catch (LinkError $e) {
            throw $e->lost
                ? $e
                : FirmwareError::because(
                    'The image was written and verified, but the board does not answer: it is firmware of another board. '.
                        'Press the board\'s bootloader button (bench strip, under Faults), link, and write an image that fits. '.
                        'The snapshot from before is kept.',
                );
        }
        if ($identity->inBootloader || null === $identity->version) {
            throw FirmwareError::because(
                'The board is still in its bootloader: the image was written and verified, but it does not start on this board. '.
                    'Write an image that fits.',
            );
        }

        return $identity;
    }

    /**
     * @param list<Fate> $fates
     *
     * @return list<array<string, mixed>>
     */
    private function rows(array $fates): array
    {
        $rows = [];
        foreach ($fates as $fate) {
            $rows[] = [
                'kind' => $fate->kind->value,
                'old' => $fate->oldName,
                'old_value' => $fate->oldValue,
                'new' => $fate->newName,
                'new_value' => $fate->newValue,
                'reason' => null === $fate->reason ? '' : $this->words->of($fate->reason),
            ];
        }

        return $rows;
    }

    /** @return array<string, mixed> */
    private function noteWipe(Craft $craft, Version $now): array
    {
        $this->record(
            $craft,
            'Flash to '.$now->toString(),
            'Settings area wiped; the firmware\'s defaults apply. The snapshot from before is on sheet 72.',
        );

        return ['report' => [], 'note' => 'The settings area was wiped. The snapshot from before is on sheet 72.'];
    }

    private function record(Craft $craft, string $what, string $reason): void
    {
        ++$craft->revision;
        $this->entities->persist(new ChangeEntry($craft, $craft->revision, new \DateTimeImmutable(), $what, $reason, []));
    }
}
