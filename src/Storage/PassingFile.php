<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

/** A file for what is only passing through, in the data folder, where nobody else can see it. */
final readonly class PassingFile
{
    /**
     * @return string its path; the file is there, and empty
     *
     * @throws NotWritable
     */
    public static function named(string $prefix): string
    {
        $path = @tempnam(sys_get_temp_dir(), $prefix);

        return false !== $path ? $path : throw NotWritable::folder(sys_get_temp_dir());
    }
}
