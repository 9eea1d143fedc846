<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/** A byte connection to a device, with its own clock; a real serial port could stand behind it. */
interface ByteLink
{
    /** @throws LinkError when the cable is out */
    public function write(string $bytes): void;

    /**
     * Whatever has arrived, at most $most bytes; waits up to $timeoutMs for the first; '' on time-out.
     *
     * @throws LinkError when the cable is out
     */
    public function read(int $most, int $timeoutMs): string;

    /** Milliseconds of the link's clock. */
    public function nowMs(): int;
}
