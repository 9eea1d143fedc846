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
     * @param list<array{id: int|null, name: string}> $returns what can come back to a board that cannot be asked, where it is not plain
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
        public array $returns = [],
    ) {
    }

    public function isOpen(): bool
    {
        return null !== $this->flash && $this->flash->isOpen();
    }

    /** @return array<string, list<array<string, mixed>>> what became of what was staged, by kind of fate */
    public function stagedReport(): array
    {
        return self::byKind($this->flash->result['staged'] ?? []);
    }

    /** @return array<string, list<array<string, mixed>>> rows by kind of fate */
    public static function byKind(mixed $rows): array
    {
        $report = [];
        foreach (\is_array($rows) ? $rows : [] as $row) {
            if (\is_array($row) && \is_string($row['kind'] ?? null)) {
                $fields = [];
                foreach ($row as $key => $value) {
                    $fields[(string) $key] = $value;
                }
                $report[$row['kind']][] = $fields;
            }
        }

        return $report;
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
