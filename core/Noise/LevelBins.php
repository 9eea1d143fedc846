<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

/** In which bin of a level each window of a flight lies that a noise map looks at: reckoned once for the maps of all axes. */
final readonly class LevelBins
{
    /** @param list<list<int>> $bins by run, window by window */
    private function __construct(public array $bins)
    {
    }

    /** @param list<list<float>> $level gap-free runs, % of whatever is full */
    public static function of(array $level, float $rateHz): self
    {
        $n = NoiseMap::window($rateHz);
        $hop = intdiv($n, 2);
        $bins = [];
        foreach ($level as $r => $run) {
            $bins[$r] = [];
            for ($at = 0, $last = \count($run) - $n; $at <= $last; $at += $hop) {
                $mean = array_sum(\array_slice($run, $at, $n)) / $n;
                $bins[$r][] = (int) floor(max(0.0, min(99.999, $mean)) / NoiseMap::BIN_PCT);
            }
        }

        return new self(array_values($bins));
    }
}
