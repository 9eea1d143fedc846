<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Mark;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Sheet\Part;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/** The line of the work on a craft, a mark a part. */
final readonly class Marks
{
    /** @param iterable<PartMark> $sources */
    public function __construct(#[TaggedIterator(PartMark::class)] private iterable $sources)
    {
    }

    /** @return array<int, Mark> by part */
    public function of(Craft $craft): array
    {
        $points = [];
        foreach ($this->sources as $source) {
            $part = (int) $source->part()->value;
            if ($craft->byHand && $part < (int) Part::Flights->value) {
                // What is to be shown on the craft cannot be shown here.
                continue;
            }
            foreach ($source->points($craft) as $point) {
                $points[$part][] = $point;
            }
        }
        ksort($points);

        return array_map(static fn (array $of): Mark => new Mark($of), $points);
    }
}
