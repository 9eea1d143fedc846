<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

use Ortholex\Core\Craft\MotorTurn;
use Ortholex\Core\Craft\SettingSet;

/** The motors of a craft by place. */
final readonly class Airframe
{
    /** Where the arms of a hexa point, clockwise from the nose. */
    private const HEXA_DEG = [
        'front_right' => 30,
        'right' => 90,
        'rear_right' => 150,
        'rear_left' => 210,
        'left' => 270,
        'front_left' => 330,
    ];

    /** Motors nearer to each other than this sit in one spot, m. */
    private const ONE_SPOT_M = 0.02;

    /** @param list<MotorPlace> $motors */
    private function __construct(public Layout $layout, public array $motors)
    {
    }

    /** @throws AirframeError with fewer than three motors or a place named twice */
    public static function custom(MotorPlace ...$motors): self
    {
        $places = array_map(static fn (MotorPlace $m): string => $m->place, $motors);
        if (\count($motors) < 3) {
            throw AirframeError::of(AirframeFlaw::TooFewMotors, motors: \count($motors));
        }
        if (\count(array_unique($places)) !== \count($places)) {
            throw AirframeError::of(AirframeFlaw::PlaceTwice, places: array_values(array_diff_assoc($places, array_unique($places))));
        }

        return new self(Layout::Custom, array_values($motors));
    }

    /**
     * Motors as they are known to stand, with the name of their layout.
     *
     * @throws AirframeError with fewer than three motors or a place named twice
     */
    public static function ofMotors(Layout $layout, MotorPlace ...$motors): self
    {
        return new self($layout, self::custom(...$motors)->motors);
    }

    /** Quad X with motor centres $diagonalM apart corner to corner. Props-in: front left clockwise from above. */
    public static function quadX(float $diagonalM, bool $propsIn = true): self
    {
        $a = $diagonalM / 2 / \M_SQRT2;
        $s = $propsIn ? 1 : -1;

        return new self(Layout::QuadX, [
            new MotorPlace('front_right', $a, $a, -$s),
            new MotorPlace('rear_right', -$a, $a, $s),
            new MotorPlace('rear_left', -$a, -$a, -$s),
            new MotorPlace('front_left', $a, -$a, $s),
        ]);
    }

    /** Hexa X: six arms of $armM, two to the front, two to the sides, two to the rear; neighbours turn opposite ways. */
    public static function hexaX(float $armM, bool $propsIn = true): self
    {
        $s = $propsIn ? 1 : -1;
        $motors = [];
        foreach (self::HEXA_DEG as $place => $deg) {
            $motors[] = new MotorPlace(
                $place,
                $armM * cos(deg2rad($deg)),
                $armM * sin(deg2rad($deg)),
                0 === \count($motors) % 2 ? -$s : $s,
            );
        }

        return new self(Layout::HexaX, $motors);
    }

    /** Quad X, $stretch times as long as wide. */
    public static function quadStretched(float $diagonalM, float $stretch, bool $propsIn = true): self
    {
        $x = (($diagonalM / 2) * $stretch) / hypot(1.0, $stretch);
        $y = $diagonalM / 2 / hypot(1.0, $stretch);
        $s = $propsIn ? 1 : -1;

        return new self(Layout::QuadStretched, [
            new MotorPlace('front_right', $x, $y, -$s),
            new MotorPlace('rear_right', -$x, $y, $s),
            new MotorPlace('rear_left', -$x, -$y, -$s),
            new MotorPlace('front_left', $x, -$y, $s),
        ]);
    }

    /** One motor ahead, one behind, one to each side. Props-in has no meaning here; front and rear turn clockwise with it. */
    public static function quadPlus(float $diagonalM, bool $propsIn = true): self
    {
        $a = $diagonalM / 2;
        $s = $propsIn ? 1 : -1;

        return new self(Layout::QuadPlus, [
            new MotorPlace('front', $a, 0.0, $s),
            new MotorPlace('right', 0.0, $a, -$s),
            new MotorPlace('rear', -$a, 0.0, $s),
            new MotorPlace('left', 0.0, -$a, -$s),
        ]);
    }

    /**
     * The frame that settings describe.
     *
     * @param SettingSet $set names of the current catalogue
     *
     * @throws AirframeError when a custom frame has too few motors or two in one spot
     */
    public static function of(SettingSet $set): self
    {
        $diagonal = $set->number('frame.diagonal_mm', 220.0) / 1000;
        $propsIn = PropDirection::PropsOut->value !== $set->text('props.direction');

        return match (Layout::tryFrom($set->text('frame.layout')) ?? Layout::QuadX) {
            Layout::QuadX => self::quadX($diagonal, $propsIn),
            Layout::QuadPlus => self::quadPlus($diagonal, $propsIn),
            Layout::QuadStretched => self::quadStretched($diagonal, $set->number('frame.stretch', 1.3), $propsIn),
            Layout::HexaX => self::hexaX($diagonal / 2, $propsIn),
            Layout::Custom => self::ofArms($set, $propsIn),
        };
    }

    /**
     * Motors wherever their arms reach; going round from the nose, neighbours turn opposite ways where nothing else is set.
     *
     * @param SettingSet $set `motor_place.PLACE.forward_mm` and `.right_mm`, both zero for no motor, and `.turns`
     *
     * @throws AirframeError
     */
    private static function ofArms(SettingSet $set, bool $propsIn): self
    {
        $arms = [];
        foreach ($set as $name => $value) {
            if (1 === preg_match('~^motor_place\.([a-z_]+)\.(forward|right)_mm$~', $name, $m) && is_numeric($value)) {
                $arms[$m[1]][$m[2]] = (float) $value / 1000;
            }
        }
        $round = [];
        foreach ($arms as $place => $at) {
            $x = $at['forward'] ?? 0.0;
            $y = $at['right'] ?? 0.0;
            if (hypot($x, $y) > 1e-6) {
                $round[$place] = [fmod(atan2($y, $x) + 2 * \M_PI, 2 * \M_PI), $x, $y];
            }
        }
        uasort($round, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $motors = [];
        foreach ($round as $place => [, $x, $y]) {
            foreach ($motors as $other) {
                if (hypot($x - $other->x, $y - $other->y) < self::ONE_SPOT_M) {
                    throw AirframeError::of(AirframeFlaw::TwoInOneSpot, places: [$other->place, $place]);
                }
            }
            $turn = MotorTurn::tryFrom($set->text("motor_place.$place.turns")) ?? MotorTurn::AgainstNeighbours;
            $motors[] = new MotorPlace($place, $x, $y, $turn->spin((0 === \count($motors) % 2) === $propsIn ? -1 : 1));
        }

        return self::custom(...$motors);
    }

    /** Motor at a place; null when the frame has none there. */
    public function at(string $place): ?MotorPlace
    {
        foreach ($this->motors as $motor) {
            if ($motor->place === $place) {
                return $motor;
            }
        }

        return null;
    }

    /** @return list<string> */
    public function places(): array
    {
        return array_map(static fn (MotorPlace $m): string => $m->place, $this->motors);
    }
}
