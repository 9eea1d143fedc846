<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Step;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/** What each craft needs next, most pressing first, of all that the sheets know. */
final readonly class NextSteps
{
    /** @param iterable<NextStepSource> $sources */
    public function __construct(#[TaggedIterator(NextStepSource::class)] private iterable $sources)
    {
    }

    /** @return list<NextStep> */
    public function of(Craft $craft): array
    {
        $steps = [];
        foreach ($this->sources as $source) {
            array_push($steps, ...$source->steps($craft));
        }
        // The order of the sources holds among equals.
        usort($steps, static fn (NextStep $a, NextStep $b): int => $a->urgency->value <=> $b->urgency->value);
        $pressing = array_values(array_filter($steps, static fn (NextStep $s): bool => Urgency::Idle !== $s->urgency));

        return [] === $pressing ? $steps : $pressing;
    }
}
