<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\World\CannotKeep;

/** Where craft are put together, and laid on benches of their own. */
interface Workbench
{
    /**
     * A craft of these parts, soldered, with firmware and the settings of who built it; what lay there under that name is replaced.
     *
     * @param string           $craft  short name in addresses
     * @param string           $name   as the transmitter's memory is called
     * @param list<BuildFault> $faults that were made
     * @param int              $seed   of tolerances and of how the faults came out
     *
     * @throws CannotKeep where there is no room for it; then nothing lies there
     */
    public function put(string $craft, string $name, CraftPlan $plan, array $faults, int $seed): void;

    /**
     * Another of the same: as it lies there, unplugged and unpowered; nothing where nothing lies.
     *
     * @throws CannotKeep where there is no room for it; then nothing lies there
     */
    public function copy(string $from, string $to): void;
}
