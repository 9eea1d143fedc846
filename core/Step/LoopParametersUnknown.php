<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Signal\SignalError;

/** Kept parameters of a loop that are not those of one. */
final class LoopParametersUnknown extends \InvalidArgumentException implements SignalError
{
    public static function of(int $numbers): self
    {
        return new self("A loop has six parameters; $numbers numbers were given.");
    }
}
