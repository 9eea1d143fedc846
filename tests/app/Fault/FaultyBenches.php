<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\Core\World\Bench;
use Ortholex\Core\World\Benches;

/** The benches, with blows falling as planned. */
final readonly class FaultyBenches implements Benches
{
    public function __construct(private Benches $real)
    {
    }

    public function of(string $craft): Bench
    {
        return new FaultyBench($this->real->of($craft));
    }
}
