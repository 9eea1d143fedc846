<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\World\Bench;

/** A cable on which a blow falls at the planned message. */
final readonly class FaultyLink implements ByteLink
{
    public function __construct(private ByteLink $real, private Bench $bench)
    {
    }

    public function write(string $bytes): void
    {
        if (null === Plan::$blow || Plan::$fell || ++Plan::$sent !== Plan::$at) {
            $this->real->write($bytes);

            return;
        }
        if (Plan::$after) {
            $this->real->write($bytes);
        }
        Plan::$fell = true;
        if (Blow::FullDisk === Plan::$blow) {
            Plan::fill();
            if (!Plan::$after) {
                $this->real->write($bytes);
            }

            return;
        }
        if (Blow::Kill === Plan::$blow) {
            throw new Killed();
        }
        if (Blow::Power === Plan::$blow) {
            $this->bench->move('pack', '0');
        }
        $this->bench->move('cable', '0');
        if (!Plan::$after) {
            $this->real->write($bytes);
        }
    }

    public function read(int $most, int $timeoutMs): string
    {
        return $this->real->read($most, $timeoutMs);
    }

    public function nowMs(): int
    {
        return $this->real->nowMs();
    }
}
