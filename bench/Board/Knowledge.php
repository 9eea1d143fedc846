<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

/** What a board knows of itself when it is asked to arm. */
final readonly class Knowledge
{
    /**
     * @param float      $tiltDeg from level
     * @param float      $turnDps how fast it turns
     * @param bool       $level   whether its level was calibrated
     * @param float      $loadPct of the loop
     * @param float|null $cellV   as it takes it; null without a pack
     * @param bool       $fix     whether its position is known
     */
    public function __construct(
        public float $tiltDeg,
        public float $turnDps,
        public bool $level,
        public float $loadPct,
        public ?float $cellV,
        public bool $fix,
    ) {
    }

    /** Level, still, calibrated, and with a full pack. */
    public static function sound(): self
    {
        return new self(0.0, 0.0, true, 0.0, 4.1, true);
    }
}
