<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Search\HitKind;
use Ortholex\App\Book\Search\SearchHit;
use Ortholex\App\Book\Search\SearchSource;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Link\CraftLinked;
use Ortholex\App\Shelf\Shelf;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 12: a board without firmware, and what is newer on the shelf. */
final readonly class FirmwareInBook implements NextStepSource, SearchSource
{
    public function __construct(private Shelf $shelf, private UrlGeneratorInterface $urls)
    {
    }

    public function steps(Craft $craft): iterable
    {
        $to = $this->urls->generate('firmware', ['slug' => $craft->slug]);
        if (null !== $craft->toReturn && !$craft->inBootloader) {
            yield new NextStep(Urgency::Unfinished, 'The settings from before the flash have not come back yet.', $to, 'Return them');
        }
        if ($craft->inBootloader) {
            yield new NextStep(Urgency::Stopped, 'The board waits in its bootloader, without whole firmware.', $to, 'Finish writing');
        }
        $newest = $craft->isKnown() ? $this->newest($craft) : null;
        if (null !== $newest) {
            $text = "Loam $newest is on the shelf for its board; it runs {$craft->version}.";
            yield new NextStep(Urgency::Newer, $text, $to, 'See what is new');
        }
    }

    #[AsEventListener]
    public function onLinked(CraftLinked $event): void
    {
        if (null !== $event->craft->toReturn && !$event->craft->inBootloader) {
            $event->said[] = 'The settings from before the flash have not come back yet: go on with it on sheet 12.';
        }
    }

    public function hits(Craft $craft): iterable
    {
        $to = $this->urls->generate('firmware', ['slug' => $craft->slug]);
        yield new SearchHit(HitKind::Action, 'Write firmware', 'choose an image that fits', $to);
    }

    private function newest(Craft $craft): ?string
    {
        foreach ($this->shelf->items() as $item) {
            $m = $item->manifest;
            if (null !== $m && !$m->version->isPreRelease() && \in_array($craft->hardwareId, $m->hardware, true)) {
                return null !== $craft->version && $m->version->compare($craft->version()) > 0 ? $m->version->toString() : null;
            }
        }

        return null;
    }
}
