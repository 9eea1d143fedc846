<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

/** What a Commit of all that is staged would change: one figure before and after. */
final readonly class TrayEffect
{
    /** @param bool $always said even where nothing changes */
    public function __construct(
        public string $label,
        public string $unit,
        public float $from,
        public float $to,
        public int $digits,
        private bool $always = false,
    ) {
    }

    public function counts(): bool
    {
        return $this->always || abs($this->to - $this->from) > 0.005;
    }
}
