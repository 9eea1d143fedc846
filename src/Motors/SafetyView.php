<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Guard\Interlocks;

/** What must be so before a motor turns. */
final readonly class SafetyView
{
    public function __construct(public bool $linked, public bool $pack, public bool $declared)
    {
    }

    /** @return list<Fact> interlocks that are open */
    public function missing(): array
    {
        return Interlocks::of($this->linked, $this->pack, $this->declared)->open();
    }
}
