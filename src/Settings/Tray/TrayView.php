<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\App\Settings\Interrupted;
use Ortholex\Core\Settings\Consistency\Clash;

/** The tray: what is staged, what it will do, and what stands against it. */
final readonly class TrayView
{
    /**
     * @param list<TrayItem>   $items
     * @param list<Clash>      $clashes
     * @param list<TrayEffect> $effects
     * @param list<TrayWarning> $warnings
     * @param int              $seen    number of the last step of staging that this shows
     */
    public function __construct(
        public array $items,
        public array $clashes,
        public array $effects,
        public int $restarts,
        public bool $linked,
        public int $seen,
        public ?Interrupted $interrupted = null,
        public array $warnings = [],
        public string $log = '',
    ) {
    }

    /** Whether there is anything to be said of what a Commit would do. */
    public function says(): bool
    {
        return [] !== $this->effects || [] !== $this->warnings || [] !== $this->clashes || $this->restarts > 0;
    }

    public function refused(): bool
    {
        foreach ($this->clashes as $clash) {
            if ($clash->refuses()) {
                return true;
            }
        }

        return false;
    }
}
