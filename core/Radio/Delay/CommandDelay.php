<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Delay;

use Ortholex\Core\Radio\Protocol\Protocol;
use Ortholex\Core\Radio\Protocol\Sbus;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;

/** How late a stick acts, as the sum of its parts; ms each. */
final readonly class CommandDelay
{
    /** A hand corrects at about this frequency: there the filter's delay counts. */
    public const AT_HZ = 10.0;

    /** Bytes of a CRSF frame of channels, from address to check. */
    private const CRSF_BYTES = 26;

    private function __construct(public float $frameMs, public float $wireMs, public float $filterMs, public float $loopMs)
    {
    }

    /**
     * @param float $intervalMs from frame to frame
     * @param float $cutoffHz   of the command low-pass
     */
    public static function of(Protocol $protocol, float $intervalMs, float $cutoffHz, float $loopHz): self
    {
        $line = $protocol->line();
        $wire = match (true) {
            null === $line => $intervalMs,
            Protocol::Sbus === $protocol => 1000 * $line->seconds(Sbus::BYTES),
            default => 1000 * $line->seconds(self::CRSF_BYTES),
        };
        $filter = FilterChain::of($loopHz, FilterStage::secondOrder(min($cutoffHz, 0.45 * $loopHz), $loopHz));

        return new self($intervalMs / 2, $wire, 1000 * $filter->groupDelay(self::AT_HZ), 500 / $loopHz);
    }

    public function sumMs(): float
    {
        return $this->frameMs + $this->wireMs + $this->filterMs + $this->loopMs;
    }
}
