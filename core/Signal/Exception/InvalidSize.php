<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal\Exception;

use Ortholex\Core\Signal\SignalError;

/** A Fourier transform was asked for a length that is no power of two. */
final class InvalidSize extends \InvalidArgumentException implements SignalError
{
    public static function of(int $size, int $least): self
    {
        return new self("A Fourier transform needs a power-of-two length of at least $least, not $size.");
    }
}
