<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/** The motors of a craft by place. */
final readonly class Frame
{
    /** @param list<MotorPlace> $motors */
    private function __construct(public string $layout, public array $motors)
    {
    }

    /** @throws AirframeError with fewer than three motors or a place named twice */
    public static function custom(MotorPlace ...$motors): self
    {
        $places = array_map(static fn (MotorPlace $m): string => $m->place, $motors);
        if (\count($motors) < 3) {
            throw AirframeError::of('A multirotor needs at least three motors; '.\count($motors).' were given.');
        }
        if (\count(array_unique($places)) !== \count($places)) {
            throw AirframeError::of('Two motors have the same place: '.implode(', ', array_diff_assoc($places, array_unique($places))).'.');
        }

        return new self('custom', array_values($motors));
    }

    /** Quad X with motor centres $diagonalM apart corner to corner. Props-in: front left clockwise from above. */
    public static function quadX(float $diagonalM, bool $propsIn = true): self
    {
        $a = $diagonalM / 2 / \M_SQRT2;
        $s = $propsIn ? 1 : -1;

        return new self('quad_x', [
            new MotorPlace('front_right', $a, $a, -$s), new MotorPlace('rear_right', -$a, $a, $s),
            new MotorPlace('rear_left', -$a, -$a, -$s), new MotorPlace('front_left', $a, -$a, $s),
        ]);
    }

    /** Hexa X: six arms of $armM, two to the front, two to the sides, two to the rear; neighbours turn opposite ways. */
    public static function hexaX(float $armM, bool $propsIn = true): self
    {
        $s = $propsIn ? 1 : -1;
        $motors = [];
        foreach (['front_right' => 30, 'right' => 90, 'rear_right' => 150, 'rear_left' => 210, 'left' => 270, 'front_left' => 330] as $place => $deg) {
            $motors[] = new MotorPlace($place, $armM * cos(deg2rad($deg)), $armM * sin(deg2rad($deg)), 0 === \count($motors) % 2 ? -$s : $s);
        }

        return new self('hexa_x', $motors);
    }

    /** @return list<string> */
    public function places(): array
    {
        return array_map(static fn (MotorPlace $m): string => $m->place, $this->motors);
    }
}
