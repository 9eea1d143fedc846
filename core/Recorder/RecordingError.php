<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

/** A recording that cannot be fetched, kept or read. */
final class RecordingError extends \RuntimeException
{
    public static function noHead(): self
    {
        return new self('No head of a recording was found whole in this file, so its traces have no names. Fetch it again.');
    }

    public static function noPage(): self
    {
        return new self('No page of this recording is whole. Fetch it again; nothing of it can be read.');
    }

    public static function tooLarge(string $path): self
    {
        return new self("$path is larger than any recorder. Is it a recording?");
    }

    public static function notWritten(string $path): self
    {
        return new self("What is fetched cannot be written to $path. Make room there, then fetch it again; what came so far is kept.");
    }

    public static function notTheSame(int $number): self
    {
        return new self("What arrived of recording $number is not what the board holds, though it was fetched again. Try another cable.");
    }
}
