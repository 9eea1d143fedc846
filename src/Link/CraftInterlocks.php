<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Guard\Interlocks;

/** How the interlocks of a craft stand right now. */
final readonly class CraftInterlocks
{
    public function __construct(private Benches $benches, private LinkService $links)
    {
    }

    public function of(Craft $craft): Interlocks
    {
        $state = $this->benches->of($craft)->state();

        return Interlocks::of($this->links->isLinked($craft), $state->pack, $state->propsDeclaredOff);
    }
}
