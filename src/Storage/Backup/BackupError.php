<?php

declare(strict_types=1);

namespace Ortholex\App\Storage\Backup;

/** A backup that cannot be made, or is none; nothing was changed by it. */
final class BackupError extends \RuntimeException
{
    public static function because(string $words): self
    {
        return new self($words);
    }
}
