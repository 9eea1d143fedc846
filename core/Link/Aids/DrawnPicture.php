<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Aids;

/** What the overlay chip draws now, row by row, and the voltage that it shows beside the one that the board's divider gives. */
final readonly class DrawnPicture
{
    /**
     * @param int|null     $layout that is shown; null for none
     * @param list<string> $rows   empty without a chip that can be spoken to
     * @param array<int, list<string>> $items what the board has for each item, by its code
     */
    public function __construct(
        public ?int $layout,
        public string $raster,
        public float $shownV,
        public float $packV,
        public array $rows,
        public array $items = [],
    ) {
    }
}
