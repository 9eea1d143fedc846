<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal\Exception;

use Ortholex\Core\Signal\SignalError;

/** A sample rate that is none. */
final class InvalidRate extends \InvalidArgumentException implements SignalError
{
    public static function of(float $rateHz): self
    {
        return new self("The sample rate must be positive, not $rateHz Hz.");
    }
}
