<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Surroundings;

use Ortholex\Bench\Flight\Sensors\NoisePool;

/** Wind with gusts: a mean, and about it a slow wandering with the spread and the length of time it is told (Gauss and Markov). */
final class Wind
{
    /** Gusts pass in about so long, s. */
    private const LASTS_S = 2.0;

    /** Vertical gusts over level ones. */
    private const UPWARD = 0.4;

    /** @var array{float, float, float} m/s, north, east, down */
    public array $now;

    /** @var array{float, float, float} */
    private array $gust = [0.0, 0.0, 0.0];

    private readonly NoisePool $noise;

    /**
     * @param float $fromDeg where it blows from
     * @param float $gusts   spread, m/s
     */
    public function __construct(private readonly float $speed, private readonly float $fromDeg, private readonly float $gusts, int $seed)
    {
        $this->noise = new NoisePool($seed);
        $this->now = $this->mean();
    }

    public static function calm(): self
    {
        return new self(0.0, 0.0, 0.0, 1);
    }

    public function step(float $dt): void
    {
        if ($this->gusts <= 0) {
            return;
        }
        $this->noise->have(3);
        $keep = exp(-$dt / self::LASTS_S);
        $fresh = $this->gusts * sqrt(1 - $keep * $keep);
        $mean = $this->mean();
        for ($i = 0; $i < 3; ++$i) {
            $this->gust[$i] = $keep * $this->gust[$i] + $fresh * $this->noise->values[$this->noise->at++];
        }
        $this->now = [$mean[0] + $this->gust[0], $mean[1] + $this->gust[1], self::UPWARD * $this->gust[2]];
    }

    /** @return array{float, float, float} */
    private function mean(): array
    {
        return [-$this->speed * cos(deg2rad($this->fromDeg)), -$this->speed * sin(deg2rad($this->fromDeg)), 0.0];
    }
}
