<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

/** What the command low-pass trades, and where the craft hovers, as they are kept by log. */
final readonly class Trade
{
    /**
     * @param string $of    code of the log whose sticks it is reckoned on; '' for a standard move
     * @param list<array{hz: float, delay_ms: float, residue_pct: float}> $curve by rising cutoff
     * @param float|null $hoverPct null where no log tells
     */
    public function __construct(
        public string $of,
        public array $curve,
        public float $kneeHz,
        public ?float $hoverPct,
        public ?float $hoverSpreadPct,
    ) {
    }
}
