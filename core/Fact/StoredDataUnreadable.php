<?php

declare(strict_types=1);

namespace Ortholex\Core\Fact;

/** Data that was kept is not of the shape that this version keeps. */
final class StoredDataUnreadable extends \RuntimeException
{
    public static function at(string $path, string $expected): self
    {
        return new self("Kept data are not readable: at “{$path}” there should be $expected.");
    }
}
