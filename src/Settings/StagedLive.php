<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Live\LiveSource;

/** Which state of the staging stands at this moment: it goes up with every change. */
final readonly class StagedLive implements LiveSource
{
    public function __construct(private Staging $staging)
    {
    }

    public function key(): string
    {
        return 'staged';
    }

    public function facts(Craft $craft): int
    {
        return $this->staging->revision($craft);
    }
}
