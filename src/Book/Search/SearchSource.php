<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Search;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Lets things of a sheet be found. */
#[AutoconfigureTag]
interface SearchSource
{
    /** @return iterable<SearchHit> */
    public function hits(Craft $craft): iterable;
}
