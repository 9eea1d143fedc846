<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Settings\File\YamlText;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Difference;
use Ortholex\Core\Settings\Migration\Migration;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 72: what the craft was kept as, held against what it is or against one another. */
#[AsController]
final class SnapshotsController extends SheetController
{
    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Staging $staging,
        private readonly LinkService $links,
        private readonly Snapshots $snapshots,
        private readonly WaysBack $ways,
        private readonly EntityManagerInterface $entities,
        private readonly SettingsFile $settingsFile,
    ) {
    }

    #[Route('/craft/{slug}/72', name: 'snapshots', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $asked = $request->query->getString('beside');

        return $this->beside($craft, $request, $this->side($craft, $asked));
    }

    /** Held against a file, which is looked at and not kept. */
    #[Route('/craft/{slug}/snapshots/against', name: 'snapshots_file', methods: ['POST'])]
    public function file(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $sent = $request->files->get('file');
        if (!$sent instanceof UploadedFile || !$sent->isValid()) {
            throw BadRequest::at('file', 'Choose a YAML file of settings to hold it against.');
        }
        $called = mb_substr(mb_scrub($sent->getClientOriginalName(), 'UTF-8'), 0, 80);
        try {
            $settings = $this->settingsFile->read($sent->getPathname(), $called);
        } catch (SettingsFileError $e) {
            throw BadRequest::at('file', $e->getMessage());
        }
        $now = Migration::carried($this->catalogue, $settings, Version::parse(Catalogue::CURRENT), $craft->version());

        return $this->beside($craft, $request, new Side('', $called, $now));
    }

    private function beside(Craft $craft, Request $request, ?Side $beside): Response
    {
        $snapshots = array_reverse($this->snapshots->of($craft));
        $away = array_reverse($this->snapshots->putAway($craft));
        $wanted = $request->request->getInt('snapshot', $request->query->getInt('snapshot'));
        $chosen = array_values(array_filter([...$snapshots, ...$away], static fn (Snapshot $s): bool => $s->id === $wanted))[0] ?? null;
        $chosen ??= $snapshots[0] ?? null;
        $way = null === $chosen ? null : $this->ways->toSnapshot($craft, $chosen);
        $differences = match (true) {
            null === $chosen, null === $way => [],
            null === $beside => Difference::between($way->now, $way->values),
            // Of what both have: a file may hold a part.
            default => Difference::between($beside->settings, $this->asNow($craft, $chosen)),
        };

        return $this->show(
            $craft,
            '72',
            'Record/snapshots.html.twig',
            new SnapshotsView(
                $snapshots,
                $away,
                $chosen,
                $beside,
                $this->rows($craft, $differences),
                $way->moved ?? [],
                $this->links->isLinked($craft),
                array_values(array_filter($this->crafts->listed(), static fn (array $c): bool => $c['slug'] !== $craft->slug)),
                $way->fates ?? [],
                $craft->version()->toString(),
            ),
        );
    }

    /** @param string $key of a snapshot its number, of a craft its short name */
    private function side(Craft $craft, string $key): ?Side
    {
        if (ctype_digit($key)) {
            $snapshot = $this->entities->getRepository(Snapshot::class)->findOneBy(['craft' => $craft, 'id' => (int) $key]);

            return null === $snapshot ? null : new Side($key, $snapshot->name, $this->asNow($craft, $snapshot));
        }
        if ('' === $key) {
            return null;
        }
        $other = $this->crafts->named($key);
        if ($other->settings->isEmpty()) {
            throw BadRequest::at('beside', "$other->name has not been read yet, so there is nothing to hold against it.");
        }

        return new Side(
            $key,
            $other->name,
            Migration::carried($this->catalogue, $other->settings, $other->version(), $craft->version()),
        );
    }

    #[Route('/craft/{slug}/snapshots', name: 'snapshot_take', methods: ['POST'])]
    public function take(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $name = self::name($request);
        $this->links->link($craft);
        if ($craft->inBootloader) {
            throw BadRequest::at('name', 'Only the bootloader answers, which knows no settings. Write firmware on sheet 12 first.');
        }
        $this->snapshots->take($craft, $name, false);
        $this->entities->flush();

        return Answer::said("Snapshot “{$name}” was taken from the board.");
    }

    #[Route('/craft/{slug}/snapshots/{id<\d+>}/name', name: 'snapshot_name', methods: ['POST'])]
    public function rename(string $slug, int $id, Request $request): Answer
    {
        $snapshot = $this->one($this->crafts->named($slug), $id);
        $snapshot->name = self::name($request);
        $this->entities->flush();

        return Answer::said("It is called “{$snapshot->name}” now.");
    }

    /** Put away it can be brought back; nothing is thrown away here. */
    #[Route('/craft/{slug}/snapshots/{id<\d+>}/away', name: 'snapshot_away', methods: ['POST'])]
    public function away(string $slug, int $id, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $snapshot = $this->one($craft, $id);
        $back = Input::of($request)->flag('back');
        if (!$back && $craft->toReturn === $snapshot->id) {
            throw BadRequest::at('away', 'Its settings are still to come back after the flash: go on with that on sheet 12 first.');
        }
        $snapshot->putAwayAt = $back ? null : new \DateTimeImmutable();
        $this->entities->flush();

        return Answer::said($back ? "“{$snapshot->name}” is back." : "“{$snapshot->name}” was put away. It can be brought back below.");
    }

    #[Route('/craft/{slug}/snapshots/{id<\d+>}.yaml', name: 'snapshot_yaml', methods: ['GET'])]
    public function yaml(string $slug, int $id): Response
    {
        $craft = $this->crafts->named($slug);
        $one = $this->one($craft, $id);

        return new Response(YamlText::write($craft->name, $one->board, $one->version, $one->revision, $one->settings), 200, [
            'Content-Type' => 'application/yaml; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"{$craft->slug}-snapshot-$id.yaml\"",
        ]);
    }

    #[Route('/craft/{slug}/snapshots/{id<\d+>}/stage', name: 'snapshot_stage', methods: ['POST'])]
    public function stage(string $slug, int $id): Answer
    {
        $craft = $this->crafts->named($slug);
        $way = $this->ways->toSnapshot($craft, $this->one($craft, $id));
        if ($way->changesNothing()) {
            throw BadRequest::at('snapshot', 'Nothing would change: the craft holds all of it already.');
        }
        $this->staging->stage($craft, $way->values->toArray());

        return Answer::said('What differs from the snapshot is staged.');
    }

    private function one(Craft $craft, int $id): Snapshot
    {
        return $this->entities->getRepository(Snapshot::class)->findOneBy(['craft' => $craft, 'id' => $id])
            ?? throw new NotFoundHttpException('There is no such snapshot.');
    }

    private static function name(Request $request): string
    {
        $name = Input::of($request)->text('name', 120);

        return '' === $name ? throw BadRequest::at('name', 'Give the snapshot a name that you will know it by.') : $name;
    }

    /** A snapshot under the names of what the craft runs now. */
    private function asNow(Craft $craft, Snapshot $snapshot): SettingSet
    {
        return Migration::carried($this->catalogue, $snapshot->settings, Version::parse($snapshot->version), $craft->version());
    }

    /**
     * @param list<Difference> $differences
     *
     * @return list<DifferentRow>
     */
    private function rows(Craft $craft, array $differences): array
    {
        return array_map(
            fn (Difference $d): DifferentRow => new DifferentRow($this->catalogue->get($d->name, $craft->version()), $d->book, $d->craft),
            $differences,
        );
    }
}
