<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\MotorPlace;

/** A craft from above, nose up the page, in the units of a drawing. */
final readonly class FrameDrawing
{
    /**
     * @param list<DrawnMotor> $motors
     * @param float            $mmPerUnit  millimetres that one unit of the drawing stands for
     * @param float            $halfWidth  of the outermost motors to the sides, units
     * @param int              $widthMm    over the outermost motors to the sides
     */
    private function __construct(
        public array $motors,
        public float $mmPerUnit,
        public float $halfWidth,
        public int $widthMm,
    ) {
    }

    /** A length of the craft in units of the drawing. */
    public function units(float $metres): float
    {
        return round((1000 * $metres) / $this->mmPerUnit, 1);
    }

    /** @param float $reach units from the middle to the farthest motor, along the page */
    public static function of(Airframe $frame, float $reach): self
    {
        $far = $wide = 0.01;
        foreach ($frame->motors as $m) {
            $far = max($far, abs($m->x), abs($m->y));
            $wide = max($wide, abs($m->y));
        }
        $k = $reach / $far;

        return new self(
            array_map(static fn (MotorPlace $m): DrawnMotor => DrawnMotor::of($m, $k), $frame->motors),
            round(1000 / $k, 4),
            round($wide * $k, 1),
            (int) round(2000 * $wide),
        );
    }
}
