<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\App\Work\Job;

/** What sheet 12 shows. */
final readonly class FirmwareView
{
    /**
     * @param list<FirmwareRow>        $rows
     * @param array<string, list<array<string, mixed>>> $report settings by fate, after a flash
     */
    public function __construct(
        public array $rows,
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
