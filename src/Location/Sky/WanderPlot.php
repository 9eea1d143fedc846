<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Sky;

use Ortholex\Core\Position\Wander;

/** How a still craft seems to wander: its fixes around their mean, with the circles that hold half and 95 % of them. */
final readonly class WanderPlot
{
    public const MIDDLE = 190.0;
    private const RIM = 160.0;
    private const MOST_DOTS = 400;

    private float $metres;

    public function __construct(public Wander $wander)
    {
        $far = max(0.5, 1.25 * $wander->r95M);
        $this->metres = current(array_filter([1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0], static fn (float $m): bool => $m >= $far)) ?: 500.0;
    }

    /** Every fix as a small square of a path. */
    public function dots(): string
    {
        $path = '';
        $points = $this->wander->points;
        $every = max(1, (int) ceil(\count($points) / self::MOST_DOTS));
        foreach ($points as $i => [$north, $east]) {
            if (0 === $i % $every && hypot($north, $east) <= $this->metres) {
                $path .= \sprintf('M%.1f %.1fh2v2h-2z', self::MIDDLE + $this->px($east) - 1, self::MIDDLE - $this->px($north) - 1);
            }
        }

        return $path;
    }

    public function px(float $metres): float
    {
        return round((self::RIM * $metres) / $this->metres, 1);
    }

    /** @return list<float> m, of the rings */
    public function rings(): array
    {
        return [$this->metres / 2, $this->metres];
    }
}
