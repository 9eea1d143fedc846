<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio;

/** Three pulse lengths that no channel can have. */
final class SpanError extends \InvalidArgumentException
{
    public static function notRising(float $lowUs, float $middleUs, float $highUs): self
    {
        return new self(
            \sprintf('A span must rise from low to high through the middle; %g, %g, %g µs does not.', $lowUs, $middleUs, $highUs),
        );
    }
}
