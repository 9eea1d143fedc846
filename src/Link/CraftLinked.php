<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;

/** A board was linked, and its firmware's settings were read; the sheets may add to what is said of it. */
final class CraftLinked
{
    /** @var list<string> sentences to be said beside “Linked.” */
    public array $said = [];

    public function __construct(public readonly Craft $craft)
    {
    }
}
