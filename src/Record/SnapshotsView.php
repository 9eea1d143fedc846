<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Settings\Snapshot;
use Ortholex\Core\Settings\Migration\Fate;

/** What sheet 72 shows. */
final readonly class SnapshotsView
{
    /**
     * @param list<Snapshot>        $snapshots   newest first
     * @param list<Snapshot>        $away        put away, newest first
     * @param Side|null             $beside      what the chosen one is held against; the craft as it is now when null
     * @param list<DifferentRow>    $differences of the chosen one
     * @param array<string, string> $moved       what is to be said of ESCs that sit elsewhere now
     * @param list<array{slug: string, name: string}> $others craft that it can be held against
     * @param list<Fate>            $fates       of the chosen one: what the version of now cannot take as it was
     * @param string                $version     of now
     */
    public function __construct(
        public array $snapshots,
        public array $away,
        public ?Snapshot $chosen,
        public ?Side $beside,
        public array $differences,
        public array $moved,
        public bool $linked,
        public array $others,
        public array $fates,
        public string $version,
    ) {
    }

    /** @return array<string, list<DifferentRow>> by group, in the order of the catalogue */
    public function groups(): array
    {
        $groups = [];
        foreach ($this->differences as $row) {
            $groups[str_replace('_', ' ', $row->setting->group->value)][] = $row;
        }

        return $groups;
    }
}
