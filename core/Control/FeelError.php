<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

/** Three rates that do not rise from the centre of the stick to its end. */
final class FeelError extends \InvalidArgumentException
{
    public function __construct(public readonly float $quarter, public readonly float $half, public readonly float $full)
    {
        parent::__construct(
            \sprintf(
                'The rates at quarter, half and full stick must rise from nothing: %g, %g and %g deg/s do not.',
                $quarter,
                $half,
                $full,
            ),
        );
    }
}
