<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Airframe;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Airframe\MotorPlace;
use Ortholex\Core\Airframe\Rotation;
use PHPUnit\Framework\TestCase;

final class AirframeTest extends TestCase
{
    public function testASymmetricQuadXMixesAsTheTextbookSays(): void
    {
        $frame = Airframe::quadX(0.216);
        $textbook = ['front_right' => [-1, 1, 1], 'rear_right' => [-1, -1, -1], 'rear_left' => [1, -1, 1], 'front_left' => [1, 1, -1]];
        foreach (Mixer::of($frame)->shares as $i => $share) {
            self::assertEqualsWithDelta($textbook[$frame->motors[$i]->place], $share, 1e-12, $frame->motors[$i]->place);
        }
    }

    public function testEachCommandMovesItsOwnAxisAlone(): void
    {
        $custom = Airframe::custom(
            new MotorPlace('a', 0.13, 0.09, 1),
            new MotorPlace('b', -0.12, 0.11, -1),
            new MotorPlace('c', -0.1, -0.12, 1),
            new MotorPlace('d', 0.14, -0.1, -1),
            new MotorPlace('e', 0.0, 0.2, -1),
            new MotorPlace('f', 0.01, -0.21, 1),
        );
        foreach ([Airframe::quadX(0.2), Airframe::hexaX(0.3), Airframe::quadX(0.2, false), $custom] as $frame) {
            foreach ([0, 1, 2] as $axis) {
                $torque = [0.0, 0.0, 0.0, 0.0];
                foreach (Mixer::of($frame)->shares as $i => $share) {
                    $m = $frame->motors[$i];
                    foreach ([-$m->y, $m->x, -0.02 * $m->spin, 1.0] as $k => $effect) {
                        $torque[$k] += $effect * $share[$axis];
                    }
                }
                foreach ($torque as $k => $t) {
                    $k === $axis ? self::assertGreaterThan(0.01, $t) : self::assertEqualsWithDelta(0, $t, 1e-9, "axis $axis leaks into $k");
                }
            }
        }
    }

    public function testPropsInTurnsTheFrontLeftClockwise(): void
    {
        $spins = static fn (Airframe $f): array => array_combine(
            $f->places(),
            array_map(static fn (MotorPlace $m): int => $m->spin, $f->motors),
        );
        self::assertSame(1, $spins(Airframe::quadX(0.2))['front_left']);
        self::assertSame(-1, $spins(Airframe::quadX(0.2, false))['front_left']);
        self::assertSame(0, array_sum($spins(Airframe::hexaX(0.3))));
    }

    public function testMotorsInALineCannotFly(): void
    {
        $this->expectException(AirframeError::class);
        $this->expectExceptionMessage('roll');
        Mixer::of(Airframe::custom(new MotorPlace('a', 0.1, 0, 1), new MotorPlace('b', 0, 0, -1), new MotorPlace('c', -0.1, 0, 1)));
    }

    public function testTwoMotorsInOnePlaceAreRefused(): void
    {
        $this->expectException(AirframeError::class);
        Airframe::custom(new MotorPlace('a', 0.1, 0, 1), new MotorPlace('a', 0, 0.1, -1), new MotorPlace('c', -0.1, 0, 1));
    }

    public function testRotationsAreRightHandedAndUndoThemselves(): void
    {
        // Nose up: the nose points against down. Right side down: the right side points down. Nose right.
        self::assertEqualsWithDelta([0, 0, -1], Rotation::degrees(0, 90, 0)->apply([1, 0, 0]), 1e-12);
        self::assertEqualsWithDelta([0, 0, 1], Rotation::degrees(90, 0, 0)->apply([0, 1, 0]), 1e-12);
        self::assertEqualsWithDelta([0, 1, 0], Rotation::degrees(0, 0, 90)->apply([1, 0, 0]), 1e-12);
        $r = Rotation::degrees(23, -41, 133);
        self::assertEqualsWithDelta([0.3, -0.2, 0.9], $r->undo($r->apply([0.3, -0.2, 0.9])), 1e-12);
    }
}
