<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Shelf\Shelf;
use Ortholex\App\Shelf\ShelfItem;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Upload\Uploads;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\Fit;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\Manifest;
use Ortholex\Core\Link\PageWriter;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

#[AsController]
final class FirmwareController extends SheetController
{
    public function __construct(
        private readonly Shelf $shelf,
        private readonly Snapshots $snapshots,
        private readonly LinkService $links,
        private readonly Jobs $jobs,
        private readonly Uploads $uploads,
        private readonly EntityManagerInterface $entities,
        private readonly CurrentNames $names,
        private readonly Airframes $frames,
        private readonly Words $words,
        private readonly UrlGeneratorInterface $urls,
    ) {
    }

    #[Route('/craft/{slug}/12', name: 'firmware', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $preReleases = $request->query->getBoolean('pre');
        $otherBoards = $request->query->getBoolean('others');
        $rows = [];
        $hidden = 0;
        foreach ($this->shelf->items() as $item) {
            $m = $item->manifest;
            if (null === $m || ($m->version->isPreRelease() && !$preReleases)) {
                ++$hidden;
            } elseif ($otherBoards || null === $craft->hardwareId || \in_array($craft->hardwareId, $m->hardware, true)) {
                $rows[] = $this->row($craft, $item, null);
            }
        }
        $name = $request->query->getString('image');
        $chosen = null;
        $extent = null;
        if ('' !== $name) {
            $item = $this->shelf->item($name);
            $image = Shelf::read($item->path);
            $chosen = $this->row($craft, $item, $image);
            $pages = PageWriter::pages(
                $image,
                $craft->flashFrom > 0 && $image->lowest() >= $craft->flashFrom ? $craft->flashFrom : $image->lowest(),
                $craft->pageBytes,
            );
            $extent = new ImageExtent(
                $image->lowest(),
                $image->end(),
                $image->size(),
                \count($pages),
                \count($image->gaps()),
                $image->sha256(),
            );
        }
        $flash = $this->entities->getRepository(Job::class)->findOneBy(['craft' => $craft, 'kind' => 'flash'], ['id' => 'DESC']);
        if (null !== $flash) {
            $flash = $this->jobs->find((int) $flash->id);
        }

        return $this->show(
            $craft,
            '12',
            'Firmware/firmware.html.twig',
            new FirmwareView(
                $rows,
                null === $chosen?->item->manifest ? [] : $this->between($craft, $chosen->item->manifest),
                $craft->settings->isEmpty()
                    ? null
                    : LoopLoad::of(
                        $this->names->of($craft, $craft->settings),
                        \count($this->frames->of($craft)->motors),
                        $craft->processor ?? 'F4',
                        $craft->leftOut,
                    )->percent,
                $hidden,
                $preReleases,
                $otherBoards,
                $chosen,
                $extent,
                $flash,
                FirmwareView::byKind($flash->result['report'] ?? []),
                $this->links->isLinked($craft),
                FlashMap::of($craft, $extent, $chosen?->fit->verdict),
                $this->returns($craft),
            ),
        );
    }

    #[Route('/craft/{slug}/firmware/from-disk', name: 'firmware_from_disk', methods: ['POST'])]
    public function fromDisk(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $path = $this->uploads->path($this->uploads->ofForm($request, 'upload'));
        try {
            $item = $this->shelf->takeIn($path);
        } catch (FirmwareError $e) {
            @unlink($path);
            throw BadRequest::at('file', $this->words->ofProblem($e));
        }

        return Answer::of(['image' => $item->name])->to($this->address($craft, ['image' => $item->name]));
    }

    #[Route('/craft/{slug}/firmware/write', name: 'firmware_write', methods: ['POST'])]
    public function write(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $item = $this->shelf->item($input->text('image', 200));
        $this->links->demandLinked($craft);
        $row = $this->row($craft, $item, Shelf::read($item->path));
        if (!$row->fit->mayBeWritten()) {
            throw BadRequest::at('image', 'This image does not fit. '.implode(' ', $this->words->all($row->fit->reasons)));
        }
        $typed = $input->text('typed', 80);
        if ($row->fit->needsTypedName() && 0 !== strcasecmp($typed, (string) $craft->board)) {
            throw BadRequest::at('typed', "Type the name of the board, {$craft->board}, to write an image that nothing vouches for.");
        }
        $job = $this->jobs->start(
            $craft,
            'flash',
            'Write '.(null === $item->manifest ? 'an image from disk' : 'Loam '.$item->manifest->version->toString()),
            [
                'image' => $item->name,
                'keep' => !$input->flag('wipe'),
                'typed' => $typed,
                'resume' => $input->flag('resume'),
                'return' => '' === $input->text('return', 12) ? null : $input->whole('return', 1, \PHP_INT_MAX),
            ],
        );
        $this->jobs->answers($job);

        return Answer::of(['job' => $job->id])->to($this->address($craft));
    }

    /** What a flash has yet to return is given up: the snapshot stays on sheet 72. */
    #[Route('/craft/{slug}/firmware/aside', name: 'firmware_aside', methods: ['POST'])]
    public function aside(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $craft->toReturn = null;
        foreach ($this->entities->getRepository(Job::class)->findBy(['craft' => $craft, 'kind' => 'flash', 'seen' => false]) as $job) {
            $job->seen = true;
        }
        $this->entities->flush();

        return Answer::said('Put aside. The snapshot from before is on sheet 72, to be staged from there.')->to($this->address($craft));
    }

    /**
     * What can come back to a board that cannot be asked any more, where more than one is possible.
     *
     * @return list<array{id: int|null, name: string}>
     */
    private function returns(Craft $craft): array
    {
        $snapshot = $this->snapshots->newest($craft);
        if (!$craft->inBootloader || null !== $craft->toReturn || null === $snapshot || $craft->settings->isEmpty()) {
            return [];
        }
        $same = $snapshot->version === $craft->version && $snapshot->settings->toArray() === $craft->settings->toArray();

        return $same
            ? []
            : [
                ['id' => null, 'name' => "as last read, at revision $craft->revision"],
                ['id' => $snapshot->id, 'name' => "“{$snapshot->name}” of {$snapshot->takenAt->format('Y-m-d H:i')}"],
            ];
    }

    /** @param array<string, string> $query */
    private function address(Craft $craft, array $query = []): string
    {
        return $this->urls->generate('firmware', ['slug' => $craft->slug] + $query);
    }

    /** In a list the manifest is judged; the file itself is judged when it is chosen, and again when it is written. */
    private function row(Craft $craft, ShelfItem $item, ?HexImage $image): FirmwareRow
    {
        $fit =
            null === $image && null !== $item->manifest
                ? Fit::byManifest($item->manifest, $craft->identity(), $craft->needs())
                : Fit::judge($image ?? Shelf::read($item->path), $item->manifest, $craft->identity(), $craft->needs());
        $compared = null === $item->manifest || null === $craft->version ? 0 : $item->manifest->version->compare($craft->version());

        $load =
            null === $item->manifest || $craft->settings->isEmpty()
                ? null
                : LoopLoad::of(
                    $this->names->of($craft, $craft->settings),
                    \count($this->frames->of($craft)->motors),
                    $craft->processor ?? 'F4',
                    $item->manifest->leftOut,
                )->percent;

        return new FirmwareRow($item, $fit, $compared, $load);
    }

    /**
     * Full releases for this board from the running version to another, in order; what is undone when going back comes
     * newest first.
     *
     * @return list<Manifest>
     */
    private function between(Craft $craft, Manifest $to): array
    {
        if (null === $craft->version) {
            return [];
        }
        $now = $craft->version();
        $up = $to->version->compare($now) >= 0;
        $steps = [];
        foreach ($this->shelf->items() as $item) {
            $m = $item->manifest;
            if (null === $m || [] !== $m->leftOut || $m->hardware !== $to->hardware) {
                continue;
            }
            $after = $m->version->compare($up ? $now : $to->version) > 0;
            $within = $m->version->compare($up ? $to->version : $now) <= 0;
            if ($after && $within && (!$m->version->isPreRelease() || 0 === $m->version->compare($to->version))) {
                $steps[] = $m;
            }
        }

        return $up ? array_reverse($steps) : $steps;
    }
}
