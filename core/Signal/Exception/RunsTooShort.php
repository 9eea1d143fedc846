<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal\Exception;

use Ortholex\Core\Signal\SignalError;

/** No gap-free stretch holds one segment of a spectrum. */
final class RunsTooShort extends \InvalidArgumentException implements SignalError
{
    public static function of(int $samples, float $rateHz): self
    {
        return new self(\sprintf('No gap-free stretch holds one segment of %d samples (%.2f s).', $samples, $samples / $rateHz));
    }
}
