<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobState;
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
        public FlashMap $map,
    ) {
    }

    public function isOpen(): bool
    {
        return null !== $this->flash && $this->flash->isOpen();
    }

    /** A write that ended early, and what is still to be said of it. */
    public function stopped(): bool
    {
        return null !== $this->flash && !$this->flash->seen && !$this->isOpen() && JobState::Done !== $this->flash->state;
    }

    public function written(): bool
    {
        return null !== $this->flash && !$this->flash->seen && JobState::Done === $this->flash->state;
    }

    /**
     * What stands in an address of this list.
     *
     * @param array<string, string|int|null> $with what is otherwise in it
     *
     * @return array<string, string|int>
     */
    public function query(array $with = []): array
    {
        $query = $with + ['pre' => $this->preReleases ? 1 : null, 'others' => $this->otherBoards ? 1 : null];

        return array_filter($query, static fn (string|int|null $v): bool => null !== $v);
    }
}
