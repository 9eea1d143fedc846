<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

/** A hover point through which no throttle curve goes. */
final class ThrottleCurveError extends \InvalidArgumentException
{
    public function __construct(float $stick, float $output, float $limit)
    {
        parent::__construct(
            \sprintf(
                'Throttle must rise from nothing through hover to its limit; hover at %.0f %% of the stick with %.0f %% of output under a '.
                    'limit of %.0f %% does not.',
                100 * $stick,
                100 * $output,
                100 * $limit,
            ),
        );
    }
}
