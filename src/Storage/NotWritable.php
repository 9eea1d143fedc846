<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Ortholex\Core\World\CannotKeep;

/** A folder of ours that nothing can be written to. */
final class NotWritable extends \RuntimeException implements CannotKeep
{
    public static function folder(string $folder, ?\Throwable $because = null): self
    {
        return new self("Ortholex may not write to $folder. Check the permissions of that folder; nothing was changed.", 0, $because);
    }
}
