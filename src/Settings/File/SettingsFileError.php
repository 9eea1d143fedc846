<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\File;

/** A file of settings that cannot be used, in words that name file, line and what to do. */
final class SettingsFileError extends \RuntimeException
{
    public static function of(string $what): self
    {
        return new self($what);
    }
}
