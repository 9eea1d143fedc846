<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

/** One output pad at the board's edge of a drawing, and its wire where one was drawn. */
final readonly class SpinPad
{
    /**
     * @param int    $side    −1 at the left edge, 1 at the right
     * @param string $place   that its wire goes to; '' while there is none
     * @param string $wire    path of it
     * @param bool   $crossed whether it cannot be: another goes to the same motor
     * @param float  $midX    middle of the wire
     */
    public function __construct(
        public int $pad,
        public float $x,
        public float $y,
        public int $side,
        public string $place,
        public string $wire,
        public bool $crossed,
        public float $midX,
        public float $midY,
    ) {
    }
}
