<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/** A geometry cannot fly, or poses contradict each other. */
final class AirframeError extends \InvalidArgumentException
{
    public static function of(string $message): self
    {
        return new self($message);
    }
}
