<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Symfony\Component\Lock\BlockingStoreInterface;
use Symfony\Component\Lock\Key;
use Symfony\Component\Lock\Store\FlockStore;

/** Locks as files, opened when the first is wanted: a folder that cannot be written to keeps nobody from reading. */
final class LockStore implements BlockingStoreInterface
{
    private ?FlockStore $files = null;

    public function __construct(private readonly string $dataFolder)
    {
    }

    public function save(Key $key): void
    {
        $this->files()->save($key);
    }

    public function waitAndSave(Key $key): void
    {
        $this->files()->waitAndSave($key);
    }

    public function putOffExpiration(Key $key, float $ttl): void
    {
        $this->files()->putOffExpiration($key, $ttl);
    }

    public function delete(Key $key): void
    {
        $this->files?->delete($key);
    }

    public function exists(Key $key): bool
    {
        return true === $this->files?->exists($key);
    }

    private function files(): FlockStore
    {
        $folder = "$this->dataFolder/locks";
        if (!is_dir($folder) && !@mkdir($folder, recursive: true) || !is_writable($folder)) {
            throw NotWritable::folder($folder);
        }

        return $this->files ??= new FlockStore($folder);
    }
}
