<?php

declare(strict_types=1);

namespace Ortholex\App\Motors\Reading;

use Ortholex\Core\Drive\RisingOutput;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Signal\Statistics;

/** A slow rise as sheet 15 draws it. */
final readonly class RisenView
{
    /** @param array<string, list<array{pct: float, rpm: list<float>}>> $rises */
    public function __construct(
        public RisingOutput $rising,
        public array $rises,
        public ?Fact $swap,
        public \DateTimeImmutable $takenAt,
    ) {
    }

    /** @return array<string, list<array{pct: float, low: float, mean: float, high: float}>> rpm by place, with its spread */
    public function bands(): array
    {
        $bands = [];
        foreach ($this->rises as $place => $steps) {
            foreach ($steps as ['pct' => $pct, 'rpm' => $rpm]) {
                $bands[$place][] = [
                    'pct' => $pct,
                    'low' => [] === $rpm ? 0.0 : min($rpm),
                    'mean' => Statistics::mean([] === $rpm ? [0.0] : $rpm),
                    'high' => [] === $rpm ? 0.0 : max($rpm),
                ];
            }
        }

        return $bands;
    }

    /** Highest rpm of the rise, for the scale of its drawing. */
    public function top(): float
    {
        $top = 1.0;
        foreach ($this->bands() as $band) {
            $top = max($top, ...array_column($band, 'high'));
        }

        return $top;
    }
}
