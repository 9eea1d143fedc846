<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal\Exception;

use Ortholex\Core\Signal\SignalError;

/** A filter that cannot run at its rate. */
final class InvalidFilter extends \InvalidArgumentException implements SignalError
{
    public static function outOfRange(float $hz, float $rateHz): self
    {
        return new self(\sprintf('A filter at %g Hz cannot run at %g Hz: it must lie above 0 and below half the rate.', $hz, $rateHz));
    }

    public static function q(float $q): self
    {
        return new self("A filter needs a Q above 0, not $q.");
    }
}
