<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Sheet;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Puts sheets into the book; implementing it is all that a new sheet needs to be found in tabs and search. */
#[AutoconfigureTag]
interface SheetOffer
{
    /** @return list<Sheet> */
    public function sheets(): array;
}
