<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\Common\EventArgs;

final class BrokenRowsMet extends EventArgs
{
    /** @param list<string> $words of each row */
    public function __construct(public readonly array $words)
    {
    }
}
