<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 63: that a series is under way, and its next flight. */
#[AsTaggedItem(priority: 20)]
final readonly class SeriesInBook implements NextStepSource
{
    public function __construct(private SeriesBook $book, private UrlGeneratorInterface $urls)
    {
    }

    public function steps(Craft $craft): iterable
    {
        $series = $craft->isKnown() ? $this->book->open($craft) : null;
        if (null === $series) {
            return;
        }
        $left = $this->book->remaining($series);
        $to = $this->urls->generate('series', ['slug' => $craft->slug]);
        $parts = $series->plan()->isOfParts();
        $name = $parts ? $series->part : $series->settings[0];
        yield [] === $left
            ? new NextStep(Urgency::Staged, "The series of $name is flown: see what it tells, and end it.", $to, 'See it')
            : new NextStep(
                Urgency::Staged,
                \sprintf(
                    'A series is under way: %d flights to go, the next with %s %s.',
                    \count($left),
                    $name,
                    $parts ? $series->step($left[0]) : 'at '.($left[0] + 0),
                ),
                $to,
                'Go on',
            );
    }
}
