<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal\Exception;

use Ortholex\Core\Signal\SignalError;

/** A statistic of no values was asked for. */
final class NoValues extends \InvalidArgumentException implements SignalError
{
    public static function of(string $statistic): self
    {
        return new self("There is no $statistic of no values.");
    }
}
