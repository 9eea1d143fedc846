<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Live;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/** The moment: what is on the bench, whether the board answers, what work is under way; whatever the sources tell. */
final readonly class LiveState
{
    /** @param iterable<LiveSource> $sources */
    public function __construct(#[TaggedIterator(LiveSource::class)] private iterable $sources)
    {
    }

    /** @return array<string, mixed> by the key of each source */
    public function of(Craft $craft): array
    {
        $live = [];
        foreach ($this->sources as $source) {
            $live[$source->key()] = $source->facts($craft);
        }

        return $live;
    }
}
