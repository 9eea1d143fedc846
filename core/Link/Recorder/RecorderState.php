<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Recorder;

/** What the memory for logs on a board holds. */
final readonly class RecorderState
{
    /**
     * @param int             $bytes      how much it holds; 0 where the board has none
     * @param int             $free       bytes
     * @param float           $busyS      seconds until it has erased itself; 0 while it does not
     * @param array<int, int> $recordings bytes by number, oldest first
     */
    public function __construct(public int $bytes, public int $free, public float $busyS, public array $recordings)
    {
    }

    /**
     * How long it could still write. A sample takes two bytes a trace, before it is packed: what is packed takes less, so this is the
     * least. (RULES: storage ÷ (bytes per sample × rate).)
     *
     * @param int $traces how many a log of this craft has
     */
    public function secondsLeft(int $traces, float $rateHz): float
    {
        return $this->free / (2 * max(1, $traces) * max(1.0, $rateHz));
    }
}
