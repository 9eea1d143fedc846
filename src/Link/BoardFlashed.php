<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Firmware\Version;

/** A board runs firmware that was just written to it. */
final readonly class BoardFlashed
{
    public function __construct(public Craft $craft, public Version $version)
    {
    }
}
