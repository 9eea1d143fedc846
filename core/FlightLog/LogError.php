<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** A file is not a log that can be read; the message says what, where and what to do. */
final class LogError extends \RuntimeException
{
    public static function of(string $message): self
    {
        return new self($message);
    }
}
