<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Mark;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Sheet\Part;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** What there is to do in a part of the book, point by point. */
#[AutoconfigureTag]
interface PartMark
{
    public function part(): Part;

    /** @return iterable<Point> */
    public function points(Craft $craft): iterable;
}
