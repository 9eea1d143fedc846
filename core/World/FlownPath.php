<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** The path of a craft in a flight of the simulator. */
final readonly class FlownPath
{
    /**
     * @param list<array{float, float, float, float, float, string}> $points s, north, east and height in m, m/s down, and the stage
     *                                                                       of its way home, or of its link-loss plan
     * @param float                                                  $offS     when the transmitter went off, s; −1 for never
     * @param float                                                  $noticedS when the board noticed, s; −1 for never
     * @param float                                                  $impactMs hardest meeting with the ground, m/s
     * @param float                                                  $usedAh   what it took from the pack
     * @param array{float, float}|null                               $home     where the board took home for, north and east, m
     */
    public function __construct(
        public array $points,
        public float $offS,
        public float $noticedS,
        public float $impactMs,
        public float $usedAh = 0.0,
        public ?array $home = null,
    ) {
    }
}
