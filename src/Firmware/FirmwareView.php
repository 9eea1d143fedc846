<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\App\Work\Job;
use Ortholex\Core\Firmware\Manifest;

/** What sheet 12 shows. */
final readonly class FirmwareView
{
    /**
     * @param list<FirmwareRow>        $rows
     * @param list<Manifest>           $between releases from the running version to the chosen one
     * @param float|null               $loadPct loop load today
     * @param array<string, list<array<string, mixed>>> $report settings by fate, after a flash
     */
    public function __construct(
        public array $rows,
        public array $between,
        public ?float $loadPct,
        public int $hidden,
        public bool $preReleases,
        public bool $otherBoards,
        public ?FirmwareRow $chosen,
        public ?ImageExtent $extent,
        public ?Job $flash,
        public array $report,
        public bool $linked,
    ) {
    }
}
