<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Settings\Snapshot;

/** What sheet 72 shows. */
final readonly class SnapshotsView
{
    /**
     * @param list<Snapshot>        $snapshots   newest first
     * @param list<Snapshot>        $away        put away, newest first
     * @param Snapshot|null         $beside      what the chosen one is held against; the craft as it is now when null
     * @param list<DifferentRow>    $differences of the chosen one
     * @param array<string, string> $moved       what is to be said of ESCs that sit elsewhere now
     */
    public function __construct(
        public array $snapshots,
        public array $away,
        public ?Snapshot $chosen,
        public ?Snapshot $beside,
        public array $differences,
        public array $moved,
        public bool $linked,
    ) {
    }
}
