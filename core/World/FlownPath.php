<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** The path of a craft in a flight of the simulator. */
final readonly class FlownPath
{
    /** Who meets the ground faster than this is broken, m/s. */
    public const BREAKS_MS = 4.0;

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

    /**
     * As many of its points as a drawing can show, and the last one always.
     *
     * @return list<array{float, float, float, float, float, string}> figures to hundredths
     */
    public function drawn(int $most): array
    {
        $every = max(1, (int) ceil(\count($this->points) / $most));
        $last = \count($this->points) - 1;
        $drawn = [];
        foreach ($this->points as $i => [$t, $north, $east, $height, $down, $stage]) {
            if (0 === $i % $every || $i === $last) {
                $drawn[] = [round($t, 2), round($north, 2), round($east, 2), round($height, 2), round($down, 2), $stage];
            }
        }

        return $drawn;
    }
}
