<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

/** Three rates that no feel curve passes through. */
final class FeelError extends \InvalidArgumentException
{
    public static function of(string $message): self
    {
        return new self($message);
    }
}
