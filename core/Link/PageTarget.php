<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/** A bootloader that flash pages can be written to and read back from. */
interface PageTarget
{
    /** @throws LinkError refused when the page did not take */
    public function writePage(int $address, string $bytes): void;

    /** @throws LinkError */
    public function readFlash(int $address, int $length): string;
}
