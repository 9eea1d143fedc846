<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Sheet;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** What the small mark beside a part's tab says of a craft. */
#[AutoconfigureTag]
interface PartMark
{
    public function part(): Part;

    /** A character or a count; '' for none. */
    public function mark(Craft $craft): string;
}
