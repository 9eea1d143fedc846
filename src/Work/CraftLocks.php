<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Ortholex\App\Book\Craft;
use Ortholex\App\Storage\NotWritable;
use Symfony\Component\Lock\LockFactory;
use Symfony\Component\Lock\LockInterface;

/**
 * Who writes to a craft has it alone: across tabs, processes and servers on one data folder. A process that ends, however it ends,
 * lets go. Whoever holds it already may hold it once more.
 */
final class CraftLocks
{
    /** @var array<string, array{LockInterface, int}> by craft: the lock, and how often it is held here */
    private array $held = [];

    public function __construct(private readonly LockFactory $locks)
    {
    }

    /** Whether it could be had. */
    public function hold(Craft $craft): bool
    {
        if (isset($this->held[$craft->slug])) {
            ++$this->held[$craft->slug][1];

            return true;
        }
        $lock = $this->locks->createLock("craft-$craft->slug", null);
        if (!$lock->acquire()) {
            return false;
        }
        $this->held[$craft->slug] = [$lock, 1];

        return true;
    }

    public function release(Craft $craft): void
    {
        if (!isset($this->held[$craft->slug])) {
            return;
        }
        if (0 === --$this->held[$craft->slug][1]) {
            $this->held[$craft->slug][0]->release();
            unset($this->held[$craft->slug]);
        }
    }

    /** Whether anyone writes to it at this moment. */
    public function isHeld(Craft $craft): bool
    {
        if (isset($this->held[$craft->slug])) {
            return true;
        }
        try {
            if (!$this->hold($craft)) {
                return true;
            }
        } catch (NotWritable) {
            // Then nobody can.
            return false;
        }
        $this->release($craft);

        return false;
    }
}
