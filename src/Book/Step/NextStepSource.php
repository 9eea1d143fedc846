<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Step;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Knows what a craft may need next on its sheet. */
#[AutoconfigureTag]
interface NextStepSource
{
    /** @return iterable<NextStep> */
    public function steps(Craft $craft): iterable;
}
