<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Ortholex\Core\Guard\Interlocks;

/** How the interlocks of a craft stand right now. */
final readonly class CraftInterlocks
{
    public function __construct(private Worlds $worlds, private LinkService $links)
    {
    }

    public function of(Craft $craft): Interlocks
    {
        $state = $this->worlds->of($craft)->store->peek();

        return Interlocks::of($this->links->isLinked($craft), $state->pack, $state->propsDeclaredOff);
    }
}
