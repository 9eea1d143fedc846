<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Listing;

/** One craft of the Workshop, and how its card is drawn. */
final readonly class Card
{
    public function __construct(public CraftSummary $craft, public string $html)
    {
    }
}
