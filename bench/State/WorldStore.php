<?php

declare(strict_types=1);

namespace Ortholex\Bench\State;

use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Bench\Storage\NotKept;

/** Keeps one world in a folder, so that requests, jobs and restarts all meet the same one; one at a time. */
final class WorldStore
{
    /** What a board and its ESCs keep through a loss of power; the rest is gone with it anyway. */
    private const LASTING = ['kept' => 1, 'keptVersion' => 1, 'escs' => 1, 'escAt' => 1, 'soldered' => 1, 'motorAt' => 1, 'plumb' => 1];

    private const NOW = '"format":'.WorldState::FORMAT.',';

    private readonly DurableFile $file;

    /** @var array{string, mixed} what was read last, and what it says: most visits meet it unchanged */
    private array $last = ['', null];

    /** @param bool $sync whether what a board keeps must outlast a loss of this machine's own power */
    public function __construct(private readonly string $folder, private readonly bool $sync = true)
    {
        $this->file = new DurableFile("$folder/world.json");
    }

    public function exists(): bool
    {
        return $this->file->exists();
    }

    public function flashPath(): string
    {
        return "$this->folder/flash.bin";
    }

    public function chipFlashPath(): string
    {
        return "$this->folder/overlay-chip.bin";
    }

    public function recorderPath(): string
    {
        return "$this->folder/recorder";
    }

    public function escFlashPath(int $pad): string
    {
        return "$this->folder/esc-$pad.bin";
    }

    /**
     * Reads without waiting for a writer; the file is replaced whole, so it is never seen half-written.
     *
     * @throws NotKept when it is broken; a new world is only where there is none
     */
    public function peek(): WorldState
    {
        return $this->told($this->file->read());
    }

    /** @throws NotKept */
    private function told(?string $text): WorldState
    {
        if (null === $text) {
            return new WorldState();
        }
        if ($text !== $this->last[0]) {
            $this->last = [$text, json_decode($text, true)];
        }
        $data = $this->last[1];

        return \is_array($data) && isset($data['escs'], $data['kept'])
            ? WorldState::fromArray($data)
            : throw NotKept::broken($this->file->path, \strlen($text), $this->file->last());
    }

    /**
     * Holds the world while $act changes it, then keeps what it became.
     *
     * @template T
     *
     * @param \Closure(WorldState): T $act
     *
     * @return T
     *
     * @throws NotKept when it cannot be kept: nothing has happened then
     */
    public function change(\Closure $act): mixed
    {
        if (!is_dir($this->folder)) {
            @mkdir($this->folder, 0o775, true);
        }
        $lock = fopen("$this->folder/lock", 'c');
        if (false === $lock || !flock($lock, \LOCK_EX)) {
            throw NotKept::noPlace("$this->folder/lock");
        }
        try {
            // One that was written under former names is written anew, once.
            $text = $this->file->read();
            $former = !str_contains($text ?? self::NOW, self::NOW);
            $state = $this->told($text);
            $before = null === $text ? null : $state->toArray();
            $result = $act($state);
            $after = $state->toArray();
            // Most visits only look: they leave no trace, and cost no writing.
            if ($before !== $after || $former) {
                $lasts = array_intersect_key($before ?? [], self::LASTING) !== array_intersect_key($after, self::LASTING);
                $this->file->write(
                    (string) json_encode($after, \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR),
                    $this->sync && $lasts,
                );
            }

            return $result;
        } finally {
            flock($lock, \LOCK_UN);
            fclose($lock);
        }
    }
}
