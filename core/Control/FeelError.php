<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

/** A half-stick rate that no feel curve passes through. */
final class FeelError extends \InvalidArgumentException
{
    /**
     * @param float $half what was wanted, deg/s
     * @param float $low  what it must lie above: half the centre rate
     * @param float $high what it must lie below: half the full-stick rate
     */
    public function __construct(public readonly float $half, public readonly float $low, public readonly float $high)
    {
        parent::__construct(
            \sprintf(
                'A half-stick rate of %g deg/s does not lie between half the centre rate (%g) and half the full-stick rate (%g).',
                $half,
                $low,
                $high,
            ),
        );
    }
}
