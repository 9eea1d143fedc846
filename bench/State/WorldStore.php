<?php

declare(strict_types=1);

namespace Ortholex\Bench\State;

/** Keeps one world in a folder, so that requests, jobs and restarts all meet the same one; one at a time. */
final readonly class WorldStore
{
    public function __construct(private string $folder)
    {
    }

    public function exists(): bool
    {
        return is_file("$this->folder/world.json");
    }

    public function flashPath(): string
    {
        return "$this->folder/flash.bin";
    }

    public function escFlashPath(int $pad): string
    {
        return "$this->folder/esc-$pad.bin";
    }

    /** Reads without waiting for a writer; the file is replaced whole, so it is never seen half-written. */
    public function peek(): WorldState
    {
        $text = @file_get_contents("$this->folder/world.json");
        $data = false === $text ? null : json_decode($text, true);

        return WorldState::fromArray(\is_array($data) ? $data : []);
    }

    /**
     * Holds the world while $act changes it, then keeps what it became.
     *
     * @template T
     *
     * @param \Closure(WorldState): T $act
     *
     * @return T
     */
    public function change(\Closure $act): mixed
    {
        if (!is_dir($this->folder)) {
            @mkdir($this->folder, 0o775, true);
        }
        $lock = fopen("$this->folder/lock", 'c');
        if (false === $lock || !flock($lock, \LOCK_EX)) {
            throw new \RuntimeException("The bench folder $this->folder cannot be written. Check its permissions.");
        }
        try {
            $state = $this->peek();
            $before = $this->exists() ? $state->toArray() : null;
            $result = $act($state);
            // Most visits only look: they leave no trace, and cost no writing.
            if ($before !== $state->toArray()) {
                $next = "$this->folder/world.next";
                file_put_contents($next, (string) json_encode($state->toArray(), \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR));
                rename($next, "$this->folder/world.json");
            }

            return $result;
        } finally {
            flock($lock, \LOCK_UN);
            fclose($lock);
        }
    }
}
