<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** Where each craft stands. */
interface Benches
{
    /** @param string $craft short name in addresses; one that no bench holds has nothing plugged in */
    public function of(string $craft): Bench;
}
