<?php

declare(strict_types=1);

namespace Ortholex\App\Overlay;

use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Shelf\Shelf;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Link\Aids\ChipClient;
use Ortholex\Core\Link\PageWriter;
use Ortholex\Core\Overlay\Chip\ChipFit;
use Ortholex\Core\Overlay\Font\ChipPages;

/**
 * Writes firmware into an overlay chip through the board, or letters, and reads them back. One that was broken off goes on where it was.
 */
final readonly class ChipHandler implements JobHandler
{
    public function __construct(private Shelf $shelf, private Benches $benches, private LinkService $links, private Fonts $fonts)
    {
    }

    public function kind(): string
    {
        return 'write_chip';
    }

    public function route(): string
    {
        return 'overlay';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $this->links->demandLinked($craft);
        $progress->at(0.01, 'asking the chip who it is');
        $client = new ChipClient($this->benches->client($craft));
        $chip = $client->identity();
        $name = $job->parameters['image'] ?? '';
        if (!\is_string($name) || '' === $name) {
            $pages = ChipPages::of($this->fonts->of($craft), $chip->firmwareEnd, $chip->pageBytes);
            $this->write($client, $pages, 'letters', $progress);

            return ['letters' => true];
        }
        $item = $this->shelf->chipItem($name);
        $image = Shelf::read($item->path);
        if ($item->manifest->sha256 !== $image->sha256()) {
            throw FirmwareError::because('The image is not what its manifest says. It was not written.');
        }
        if ($item->manifest->kind !== $chip->kind) {
            throw FirmwareError::because("It is for a {$item->manifest->kind}, and this is a $chip->kind. It was not written.");
        }
        if (!ChipFit::of($craft->version(), $item->manifest->version)->suits) {
            throw FirmwareError::because(
                "{$item->manifest->kind} {$item->manifest->version->toString()} does not suit Loam {$craft->version()->toString()}. ".
                    'It was not written.',
            );
        }
        if (null !== $chip->version) {
            $client->toBootloader();
        }
        $this->write($client, PageWriter::pages($image, 0, $chip->pageBytes), 'firmware', $progress);
        $client->run();
        $is = $client->identity()->version;
        if (null === $is || 0 !== $is->compare($item->manifest->version)) {
            throw FirmwareError::because('The chip did not start what was written. Write it again.');
        }

        return ['version' => $is->toString()];
    }

    /** @param array<int, string> $pages */
    private function write(ChipClient $client, array $pages, string $what, JobProgress $progress): void
    {
        $writer = new PageWriter($client);
        $skip = $writer->alreadyWritten($pages);
        $skip = $skip === \count($pages) ? 0 : $skip;
        $writer->write($pages, $skip, static fn (int $done, int $of) => $progress->at(
            0.05 + (0.65 * $done) / $of,
            "$what: writing page $done of $of",
        ));
        $writer->verify($pages, static fn (int $done, int $of) => $progress->at(
            0.7 + (0.28 * $done) / $of,
            "$what: reading back page $done of $of",
        ));
    }
}
