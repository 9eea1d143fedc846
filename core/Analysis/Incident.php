<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** A moment when the craft did what nobody asked for, in the order of cause and effect. */
final readonly class Incident
{
    /**
     * @param float                                   $atS      the earliest sign
     * @param float                                   $endS     the last
     * @param string|null                             $place    whose motor stopped pushing; null when the log does not tell
     * @param float                                   $margin   cosine similarity of the first place over the second, 0 to 2
     * @param list<array{place: string, fit: float}>  $ranked   best first
     * @param list<array{at_s: float, what: string}>  $timeline in order of time
     * @param array{float, float, float}              $rotation unexplained angular acceleration: roll, pitch, yaw, deg/s²
     * @param list<string>                            $against  what contradicts it
     * @param list<string>                            $causes   what to look at, likeliest first
     */
    public function __construct(
        public float $atS,
        public float $endS,
        public ?string $place,
        public float $margin,
        public array $ranked,
        public array $timeline,
        public array $rotation,
        public array $against,
        public array $causes,
        public string $evidence,
    ) {
    }
}
