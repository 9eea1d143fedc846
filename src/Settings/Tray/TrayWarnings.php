<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Knows which staged settings would fly badly: the tray says so, and a Commit of them must say that this was read. */
#[AutoconfigureTag]
interface TrayWarnings
{
    /** @return iterable<TrayWarning> */
    public function warnings(Craft $craft): iterable;
}
