<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

/** One numbered sheet of a craft's book. */
final readonly class Sheet
{
    /** @param string $will what stands on it, or will stand on it once built */
    public function __construct(public string $number, public string $name, public string $part, public bool $built, public string $will)
    {
    }
}
