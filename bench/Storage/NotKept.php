<?php

declare(strict_types=1);

namespace Ortholex\Bench\Storage;

use Ortholex\Core\World\CannotKeep;

/** The bench could not keep what happened on it: the message says which file, and what to do. */
final class NotKept extends \RuntimeException implements CannotKeep
{
    public static function short(string $path, int $written, int $wanted): self
    {
        return new self(
            \sprintf(
                'Only %d of %d bytes of %s could be written: the disk is full, or a limit was met. Make room and try again; '.
                    'what lay there before is untouched.',
                $written,
                $wanted,
                $path,
            ),
        );
    }

    public static function noPlace(string $path): self
    {
        return new self("The bench cannot write $path. Check the permissions of its folder, and whether the disk is full.");
    }

    public static function broken(string $path, int $bytes, ?string $last): self
    {
        return new self(
            "$path is broken: its $bytes bytes are not what the bench wrote. It is left as it is, and nothing is made new in its place. ".
                (null === $last ? 'Take it from a backup.' : "The last good one lies beside it; put it back with: mv '$last' '$path'"),
        );
    }
}
