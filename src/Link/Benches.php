<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\Benches as AllBenches;

/** The world around each craft of the book, and the cable to its board. */
final readonly class Benches
{
    public function __construct(private AllBenches $benches)
    {
    }

    public function of(Craft $craft): Bench
    {
        return $this->benches->of($craft->slug);
    }

    public function client(Craft $craft): BoardClient
    {
        return new BoardClient($this->of($craft)->link());
    }
}
