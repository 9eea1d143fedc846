<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** How well transmitter and receiver hear each other, as a two-way receiver tells it (CRSF frame 14). */
final readonly class LinkStatistics
{
    /**
     * @param float $rssiDbm    of the better aerial of the receiver
     * @param int   $qualityPct share of the last frames that came through
     * @param int   $snrDb      signal over noise
     * @param int   $powerMw    of the transmitter
     */
    public function __construct(public float $rssiDbm, public int $qualityPct, public int $snrDb, public int $powerMw)
    {
    }
}
