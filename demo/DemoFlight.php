<?php

declare(strict_types=1);

namespace Ortholex\Demo;

use Ortholex\Core\LogCheck\Card;

/** A flight that was flown before the book is opened for the first time. */
final readonly class DemoFlight
{
    /**
     * @param string                               $fault   of the bench, while it was flown; '' for none
     * @param array<string, float|int|bool|string> $change  settings that were otherwise on the board
     * @param string                               $variant what was mounted, where it belongs to a series of parts
     */
    public function __construct(
        public Card $card,
        public int $seed,
        public int $seconds = 30,
        public string $fault = '',
        public array $change = [],
        public string $variant = '',
    ) {
    }
}
