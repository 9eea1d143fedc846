<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Live;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Tells facts of the moment, asked for twice a second: it must be quick. */
#[AutoconfigureTag]
interface LiveSource
{
    /** Under which name its facts stand among all. */
    public function key(): string;

    /** What can be shown as JSON; objects of figures, lists, or one figure. */
    public function facts(Craft $craft): mixed;
}
