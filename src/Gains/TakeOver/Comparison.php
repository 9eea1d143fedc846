<?php

declare(strict_types=1);

namespace Ortholex\App\Gains\TakeOver;

/** What makes another craft's gains mean something else here, and what they would have to be. */
final readonly class Comparison
{
    /**
     * @param list<string>         $differences
     * @param array<string, float> $scaled      by setting
     */
    public function __construct(public array $differences, public array $scaled)
    {
    }
}
