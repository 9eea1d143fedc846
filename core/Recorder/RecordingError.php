<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

/** A file of which nothing can be read as a recording. */
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
}
