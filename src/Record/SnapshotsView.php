<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Settings\Snapshot;
use Ortholex\Core\Settings\Setting;

/** What sheet 72 shows. */
final readonly class SnapshotsView
{
    /**
     * @param list<Snapshot> $snapshots newest first
     * @param list<array{setting: Setting, now: float|int|bool|string, then: float|int|bool|string}> $differences of the chosen one, now
     * @param array<string, string> $moved what is to be said of ESCs that sit elsewhere now
     */
    public function __construct(
        public array $snapshots,
        public ?Snapshot $chosen,
        public array $differences,
        public array $moved,
        public bool $linked,
    ) {
    }
}
