<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

use Ortholex\Core\Radio\ChannelSpan;

/** What to dial in the transmitter so that a channel has its nominal span: the other cure than telling the board. */
final readonly class TransmitterCure
{
    private const HALF_US = 500.0;
    private const MIDDLE_US = 1500.0;

    /** Nearer than this there is nothing to dial, µs. */
    private const SAME_US = 2.5;

    /**
     * @param float $lowFactor  by which the end point of the low side is to be multiplied
     * @param float $highFactor the same of the high side
     * @param float $trimUs     by which the middle is to be moved
     */
    private function __construct(public float $lowFactor, public float $highFactor, public float $trimUs)
    {
    }

    /** Null when the span is nominal already. */
    public static function of(ChannelSpan $span): ?self
    {
        $off = max(abs($span->lowUs - 1000), abs($span->middleUs - self::MIDDLE_US), abs($span->highUs - 2000));

        return $off < self::SAME_US
            ? null
            : new self(
                self::HALF_US / ($span->middleUs - $span->lowUs),
                self::HALF_US / ($span->highUs - $span->middleUs),
                self::MIDDLE_US - $span->middleUs,
            );
    }
}
