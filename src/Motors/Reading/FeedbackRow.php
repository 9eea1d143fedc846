<?php

declare(strict_types=1);

namespace Ortholex\App\Motors\Reading;

/** One motor of the rpm feedback check. */
final readonly class FeedbackRow
{
    /**
     * @param float      $rpm      by the magnets as set
     * @param float|null $shakesHz how often a second the shaft shakes the board; null when it cannot be told
     * @param int|null   $magnets  pole count that agrees with the shake
     */
    public function __construct(
        public string $place,
        public float $rpm,
        public float $errorsPct,
        public ?float $shakesHz,
        public ?int $magnets,
        public ?float $measured,
    ) {
    }
}
