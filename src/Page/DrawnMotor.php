<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\Core\Airframe\MotorPlace;

/** One motor of a drawing. */
final readonly class DrawnMotor
{
    /**
     * @param float $x    to the right of the page
     * @param float $y    down the page
     * @param int   $side −1 where what is written beside it stands to its left, else 1
     * @param int   $spin +1 clockwise from above
     */
    private function __construct(
        public string $place,
        public string $name,
        public float $x,
        public float $y,
        public int $side,
        public int $spin,
        public int $forwardMm,
        public int $rightMm,
    ) {
    }

    public static function of(MotorPlace $m, float $scale): self
    {
        $x = round($m->y * $scale, 1);

        return new self(
            $m->place,
            $m->inWords(),
            $x,
            round(-$m->x * $scale, 1),
            $x < -1 ? -1 : 1,
            $m->spin,
            (int) round(1000 * $m->x),
            (int) round(1000 * $m->y),
        );
    }

    /** Where text beside it begins. */
    public function beside(float $distance): float
    {
        return round($this->x + $this->side * $distance, 1);
    }

    /** Class of text beside it: it ends at its place where it stands to the left. */
    public function anchor(): string
    {
        return $this->side < 0 ? 'end' : '';
    }
}
