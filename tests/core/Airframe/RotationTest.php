<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Airframe;

use Ortholex\Core\Airframe\Rotation;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** x to the nose, y to the right, z down; yaw, then pitch, then roll. */
final class RotationTest extends TestCase
{
    /** @return iterable<string, array{array{float, float, float}, array{float, float, float}, array{float, float, float}}> */
    public static function known(): iterable
    {
        yield 'none' => [[0, 0, 0], [1, 2, 3], [1, 2, 3]];
        yield 'yaw to the right takes the nose to the right' => [[0, 0, 90], [1, 0, 0], [0, 1, 0]];
        yield 'pitch up takes the nose up, that is against down' => [[0, 90, 0], [1, 0, 0], [0, 0, -1]];
        yield 'roll to the right takes the right side down' => [[90, 0, 0], [0, 1, 0], [0, 0, 1]];
        yield 'upside down' => [[180, 0, 0], [0, 1, 1], [0, -1, -1]];
        yield 'half a turn' => [[0, 0, 180], [1, 1, 0], [-1, -1, 0]];
        yield 'an eighth of a turn' => [[0, 0, 45], [\M_SQRT2, 0, 0], [1, 1, 0]];
        yield 'yaw first, then pitch about the turned axis' => [[0, 30, 90], [1, 0, 0], [0, 0.8660254037844387, -0.5]];
    }

    /**
     * @param array{float, float, float} $angles
     * @param array{float, float, float} $turned
     * @param array{float, float, float} $fixed
     */
    #[DataProvider('known')]
    public function testItTurnsAsByHand(array $angles, array $turned, array $fixed): void
    {
        $rotation = Rotation::degrees(...$angles);
        self::near($fixed, $rotation->apply($turned));
        self::near($turned, $rotation->undo($fixed));
    }

    public function testWhatIsTurnedKeepsLengthAngleAndHand(): void
    {
        $dice = new Lcg(14);
        for ($round = 0; $round < 300; ++$round) {
            $rotation = self::drawn($dice);
            $a = self::vector($dice);
            $b = self::vector($dice);
            $ra = $rotation->apply($a);
            $rb = $rotation->apply($b);
            self::assertEqualsWithDelta(self::dot($a, $a), self::dot($ra, $ra), 1e-9);
            self::assertEqualsWithDelta(self::dot($a, $b), self::dot($ra, $rb), 1e-9);
            self::near($rotation->apply(self::cross($a, $b)), self::cross($ra, $rb), 1e-9);
            self::near($a, $rotation->undo($ra), 1e-9);
        }
    }

    public function testItsAnglesLeadBackToIt(): void
    {
        $dice = new Lcg(15);
        for ($round = 0; $round < 500; ++$round) {
            $rotation = self::drawn($dice);
            self::assertLessThan(1e-4, Rotation::degrees(...$rotation->angles())->angleTo($rotation));
        }
        foreach ([90.0, -90.0] as $straight) {
            foreach ([0.0, 35.0, -120.0] as $roll) {
                foreach ([0.0, 50.0, 179.0] as $yaw) {
                    $rotation = Rotation::degrees($roll, $straight, $yaw);
                    $angles = $rotation->angles();
                    self::assertSame(0.0, $angles[2], 'with the nose straight up or down, roll alone tells');
                    self::assertLessThan(1e-4, Rotation::degrees(...$angles)->angleTo($rotation));
                }
            }
        }
    }

    public function testTheAngleBetweenTwoIsADistance(): void
    {
        foreach ([0, 12, 90, 135, 180] as $deg) {
            foreach ([[1, 0, 0], [0, 1, 0], [0, 0, 1]] as [$r, $p, $y]) {
                $turned = Rotation::degrees($r * $deg, $p * min($deg, 90), $y * $deg);
                self::assertEqualsWithDelta($p ? min($deg, 90) : $deg, Rotation::degrees(0, 0, 0)->angleTo($turned), 2e-6);
            }
        }
        $dice = new Lcg(16);
        for ($round = 0; $round < 200; ++$round) {
            [$a, $b, $c] = [self::drawn($dice), self::drawn($dice), self::drawn($dice)];
            self::assertEqualsWithDelta(0.0, $a->angleTo($a), 2e-6);
            self::assertEqualsWithDelta($a->angleTo($b), $b->angleTo($a), 1e-9);
            self::assertLessThanOrEqual($a->angleTo($b) + $b->angleTo($c) + 1e-6, $a->angleTo($c));
            self::assertLessThanOrEqual(180.0, $a->angleTo($b));
        }
    }

    private static function drawn(Lcg $dice): Rotation
    {
        return Rotation::degrees(360 * $dice->next(), 178 * $dice->next(), 360 * $dice->next());
    }

    /** @return array{float, float, float} */
    private static function vector(Lcg $dice): array
    {
        return [4 * $dice->next(), 4 * $dice->next(), 4 * $dice->next()];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     */
    private static function dot(array $a, array $b): float
    {
        return $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }

    /**
     * @param array{float, float, float} $wanted
     * @param array{float, float, float} $got
     */
    private static function near(array $wanted, array $got, float $within = 1e-12): void
    {
        foreach ($wanted as $i => $v) {
            self::assertEqualsWithDelta($v, $got[$i], $within, json_encode($got).' instead of '.json_encode($wanted));
        }
    }
}
