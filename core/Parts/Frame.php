<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\Layout;

/** A frame: how its motors stand, what it weighs, which prop it takes, and what it rings at. */
final readonly class Frame
{
    /** How much longer than wide a stretched one is. */
    public const STRETCH = 1.3;

    /** @param list<float> $ringsHz pitch first */
    public function __construct(
        public string $id,
        public string $name,
        public Layout $layout,
        public float $diagonalMm,
        public float $massG,
        public float $largestPropMm,
        public array $ringsHz,
        public float $damping,
    ) {
    }

    /** The same with arms of another length: they weigh by their length, and ring by the inverse square of it. */
    public function withDiagonal(float $mm): self
    {
        $k = $mm / $this->diagonalMm;

        return new self(
            $this->id,
            $this->name,
            $this->layout,
            $mm,
            $this->massG * $k,
            $this->largestPropMm * $k,
            array_map(static fn (float $hz): float => round($hz / $k ** 2, 1), $this->ringsHz),
            $this->damping,
        );
    }

    public function airframe(): Airframe
    {
        $m = $this->diagonalMm / 1000;

        return match ($this->layout) {
            Layout::QuadPlus => Airframe::quadPlus($m),
            Layout::QuadStretched => Airframe::quadStretched($m, self::STRETCH),
            Layout::HexaX => Airframe::hexaX($m / 2),
            default => Airframe::quadX($m),
        };
    }
}
