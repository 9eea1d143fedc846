<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** A computation was asked for something its mathematics does not allow. */
final class SignalError extends \InvalidArgumentException
{
    public static function of(string $message): self
    {
        return new self($message);
    }
}
