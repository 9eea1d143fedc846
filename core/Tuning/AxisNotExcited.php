<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Signal\SignalError;

/** A flight that does not tell how an axis answers its command. */
final class AxisNotExcited extends \RuntimeException implements SignalError
{
    public static function tooShort(int $windows): self
    {
        return new self("The log holds only $windows windows of two seconds; three are needed to tell how the axis answers its command.");
    }

    public static function movedTooLittle(int $frequencies): self
    {
        return new self("The stick moved this axis at $frequencies frequencies only; eight are needed to tell how it answers its command.");
    }
}
