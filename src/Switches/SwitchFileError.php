<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

/** A file that holds no switch map, or a question about one that cannot be read. */
final class SwitchFileError extends \RuntimeException
{
    public static function noFile(string $path): self
    {
        return new self("There is no readable file at $path.");
    }

    public static function notYaml(string $path, string $why): self
    {
        return new self("$path is no YAML of settings: $why");
    }

    public static function positions(string $channel): self
    {
        return new self("switches: channel $channel needs a list of two positions or more, in µs, as 5: [1000, 1500, 2000].");
    }

    public static function at(string $given): self
    {
        return new self("--at takes channels in µs, as 5=1010,6=1500; “{$given}” is none.");
    }
}
