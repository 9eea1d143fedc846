<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\File;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookPart;
use Ortholex\App\Book\Share\BookReader;
use Ortholex\App\Book\Share\BookWriter;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Outcome;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\SettingError;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;

/** settings.yaml, staged.yaml, changes.yaml and snapshots/NNNN.yaml. */
#[AsTaggedItem(priority: 80)]
final readonly class SettingsOfBook implements BookPart
{
    private const SETTINGS = 'settings.yaml';
    private const STAGED = 'staged.yaml';
    private const CHANGES = 'changes.yaml';
    private const SNAPSHOTS = 'snapshots';

    public function __construct(private EntityManagerInterface $entities, private Staging $staging, private Catalogue $catalogue)
    {
    }

    public function write(Craft $craft, BookWriter $book): void
    {
        $book->yaml(self::SETTINGS, $craft->settings->toArray());
        $book->yaml(self::STAGED, $this->staging->of($craft)->toArray());
        $names = $book->choice->names;
        $seats = static fn (array $escs): array => $book->choice->serials ? $escs : [];
        $entries = [];
        foreach ($this->entities->getRepository(ChangeEntry::class)->findBy(['craft' => $craft], ['id' => 'ASC']) as $entry) {
            $entries[] = [
                'revision' => $entry->revision,
                'at' => $entry->at->format(\DATE_ATOM),
                'what' => $entry->what,
                'reason' => $names ? $entry->reason : '',
                'outcome' => $entry->outcome->value,
                'items' => $entry->items,
                'left' => $entry->left,
                'escs' => $seats($entry->escs),
            ];
        }
        $book->yaml(self::CHANGES, ['changes' => $entries]);
        foreach ($this->entities->getRepository(Snapshot::class)->findBy(['craft' => $craft], ['id' => 'ASC']) as $i => $snapshot) {
            $number = \sprintf('%04d', $i + 1);
            $book->yaml(self::SNAPSHOTS."/$number.yaml", [
                'name' => $names || $snapshot->byItself ? $snapshot->name : "snapshot $number",
                'by_itself' => $snapshot->byItself,
                'board' => $snapshot->board,
                'version' => $snapshot->version,
                'revision' => $snapshot->revision,
                'taken' => $snapshot->takenAt->format(\DATE_ATOM),
                'put_away' => $snapshot->putAwayAt?->format(\DATE_ATOM),
                'escs' => $seats($snapshot->escs),
                'settings' => $snapshot->settings->toArray(),
            ]);
        }
    }

    public function isLong(): bool
    {
        return false;
    }

    public function read(Craft $craft, BookReader $book): void
    {
        $settings = $book->yaml(self::SETTINGS);
        if (null !== $settings) {
            $craft->settings = $this->settings(self::SETTINGS, $settings->all(), $craft->version(), $book);
            $book->took('settings', \count($craft->settings));
        }
        $staged = $book->yaml(self::STAGED);
        if (null !== $staged) {
            $this->entities->flush();
            $set = $this->settings(self::STAGED, $staged->all(), $craft->version(), $book)->among($craft->settings);
            $this->staging->stage($craft, $set->toArray());
            $book->took('staged changes', \count($set));
        }
        $changes = $book->yaml(self::CHANGES);
        $rows = null === $changes ? null : $book->reading(self::CHANGES, static fn (): array => $changes->rows('changes'));
        foreach ($rows ?? [] as $entry) {
            $book->reading(self::CHANGES, function () use ($craft, $entry, $book): void {
                $this->entities->persist(self::entry($craft, $entry));
                $book->took('changes on record');
            });
        }
        foreach ($book->names(self::SNAPSHOTS) as $name) {
            $kept = $book->yaml($name);
            if (null !== $kept) {
                $book->reading($name, function () use ($craft, $name, $kept, $book): void {
                    $this->entities->persist($this->snapshot($craft, $name, $kept, $book));
                    $book->took('snapshots');
                });
            }
        }
    }

    /**
     * Those that the release knows, each checked as a typed one is.
     *
     * @param array<mixed> $given
     */
    private function settings(string $file, array $given, Version $release, BookReader $book): SettingSet
    {
        $values = $wrong = [];
        foreach ($given as $name => $value) {
            $name = (string) $name;
            try {
                $values[$name] = $this->catalogue->get($name, $release)->check($value, $release);
            } catch (SettingError) {
                $wrong[] = mb_substr($name, 0, 40);
            }
        }
        if ([] !== $wrong) {
            $more = \count($wrong) > 5 ? ' and '.(\count($wrong) - 5).' more' : '';
            $names = implode(', ', \array_slice($wrong, 0, 5)).$more;
            $book->refuse($file, "not taken, as Loam {$release->toString()} has no such setting or value: $names");
        }

        return SettingSet::of($values);
    }

    private static function entry(Craft $craft, Stored $is): ChangeEntry
    {
        $items = [];
        foreach ($is->rows('items') as $item) {
            $values = $item->all();
            [$from, $to] = [$values['from'] ?? null, $values['to'] ?? null];
            if ((null === $from || \is_scalar($from)) && (null === $to || \is_scalar($to))) {
                $items[] = ['name' => $item->text('name'), 'from' => $from, 'to' => $to];
            }
        }

        return new ChangeEntry(
            $craft,
            $is->whole('revision'),
            $is->time('at'),
            mb_substr($is->text('what'), 0, 255),
            mb_substr($is->text('reason'), 0, 500),
            $items,
            Outcome::tryFrom($is->text('outcome')) ?? Outcome::Done,
            $is->texts('left'),
            self::seats($is),
        );
    }

    private function snapshot(Craft $craft, string $file, Stored $is, BookReader $book): Snapshot
    {
        $version = Version::parse($is->text('version'));
        $snapshot = new Snapshot(
            $craft,
            mb_substr($is->text('name'), 0, 120),
            $is->flag('by_itself') ?? false,
            mb_substr($is->text('board'), 0, 80),
            $version->toString(),
            $this->settings($file, $is->map('settings'), $version, $book),
            $is->time('taken'),
            $is->whole('revision'),
            self::seats($is),
        );
        $snapshot->putAwayAt = $is->optionalTime('put_away');

        return $snapshot;
    }

    /** @return array<string, string> */
    private static function seats(Stored $is): array
    {
        $seats = [];
        foreach ($is->map('escs') as $place => $serial) {
            if (\is_string($serial)) {
                $seats[(string) $place] = $serial;
            }
        }

        return $seats;
    }
}
