<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Position;

use Ortholex\Core\Position\LocalMetres;
use Ortholex\Core\Position\Magnetic\MagneticModel;
use Ortholex\Core\Position\Magnetic\OutsideModel;
use Ortholex\Core\Position\Wander;
use PHPUnit\Framework\TestCase;

/** Places as metres, their scatter, and the field of the earth. */
final class WanderTest extends TestCase
{
    /** One second of the meridian at 45° is 30.870 m, of the parallel 21.901 m (WGS 84, as printed in tables of the ellipsoid). */
    public function testMetresOfASecond(): void
    {
        [$north, $east] = LocalMetres::about(45.0, 7.0)->of(45.0 + 1 / 3600, 7.0 + 1 / 3600);
        self::assertEqualsWithDelta(30.870, $north, 0.001);
        self::assertEqualsWithDelta(21.901, $east, 0.001);
        [$lat, $lon] = LocalMetres::about(-60.0, 179.9999)->place(100.0, 200.0);
        [$north, $east] = LocalMetres::about(-60.0, 179.9999)->of($lat, $lon > 180 ? $lon - 360 : $lon);
        self::assertEqualsWithDelta(100.0, $north, 1e-6);
        self::assertEqualsWithDelta(200.0, $east, 1e-6, 'over the line where east meets west');
    }

    /** Of a round normal scatter: half lie within σ·√(2 ln 2), 95 % within σ·√(2 ln 20) (Rayleigh). */
    public function testCirclesOfASeededScatter(): void
    {
        foreach ([1, 2, 3] as $seed) {
            mt_srand($seed);
            $normal = static fn (): float => sqrt(
                -2 * log(mt_rand(1, mt_getrandmax()) / mt_getrandmax()),
            ) * cos(2 * \M_PI * mt_rand() / mt_getrandmax());
            $sigma = 0.5 + $seed;
            $about = LocalMetres::about(54.9, -3.4);
            $places = array_map(static fn (): array => $about->place(12 + $sigma * $normal(), -7 + $sigma * $normal()), range(1, 12_000));
            $wander = Wander::of($places);
            self::assertNotNull($wander);
            self::assertEqualsWithDelta(1.0, $wander->cep50M / ($sigma * sqrt(2 * log(2))), 0.05);
            self::assertEqualsWithDelta(1.0, $wander->r95M / ($sigma * sqrt(2 * log(20))), 0.05);
            [$north, $east] = $about->of($wander->latDeg, $wander->lonDeg);
            self::assertEqualsWithDelta(12.0, $north, 0.1);
            self::assertEqualsWithDelta(-7.0, $east, 0.1);
        }
        self::assertNull(Wander::of([[54.9, -3.4], [54.9, -3.4]]));
    }

    /** 200 places, three dates, by the npm package geomagnetism 0.2 (its own code); data/declination.csv. */
    public function testDeclinationAgainstAnIndependentImplementation(): void
    {
        $model = MagneticModel::load();
        $rows = \array_slice(file(__DIR__.'/data/declination.csv', \FILE_IGNORE_NEW_LINES) ?: [], 1);
        self::assertCount(600, $rows);
        foreach ($rows as $row) {
            [$lat, $lon, $date, $expected] = explode(',', $row);
            $field = $model->at((float) $lat, (float) $lon, new \DateTimeImmutable($date));
            $off = fmod($field->declinationDeg() - (float) $expected + 540, 360) - 180;
            self::assertLessThan(0.1, abs($off), $row);
            self::assertGreaterThan(20.0, $field->strengthUt());
            self::assertLessThan(70.0, $field->strengthUt());
        }
        self::assertGreaterThan(60.0, $model->at(54.9, -3.4, new \DateTimeImmutable('2026-11-29'))->inclinationDeg());
        self::assertLessThan(-50.0, $model->at(-45.0, 170.0, new \DateTimeImmutable('2026-11-29'))->inclinationDeg());
    }

    public function testOutsideTheModelItSaysSo(): void
    {
        foreach (
            [
                [54.9, -3.4, '2024-12-31'],
                [54.9, -3.4, '2030-01-01'],
                [91.0, 0.0, '2026-01-01'],
                [0.0, 181.0, '2026-01-01'],
            ] as [$lat, $lon, $date]
        ) {
            try {
                MagneticModel::load()->at($lat, $lon, new \DateTimeImmutable($date));
                self::fail("$lat $lon $date");
            } catch (OutsideModel $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
        self::assertLessThan(
            70,
            MagneticModel::load()->at(90.0, 0.0, new \DateTimeImmutable('2026-01-01'))->strengthUt(),
            'at the pole itself',
        );
    }
}
