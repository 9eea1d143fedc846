<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Search;

/** Something that the search box can find. */
final readonly class SearchHit
{
    /** @param string $to address it leads to */
    public function __construct(public HitKind $kind, public string $name, public string $about, public string $to)
    {
    }
}
