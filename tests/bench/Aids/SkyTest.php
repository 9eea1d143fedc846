<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Aids;

use Ortholex\Bench\Sky\Sky;
use Ortholex\Core\Position\Nmea\Satellite;
use PHPUnit\Framework\TestCase;

/** The sky over the marsh: it turns, woods and roofs take of it, and its geometry is reckoned rightly. */
final class SkyTest extends TestCase
{
    /** One straight up and three on the horizon, a third of a turn apart: (GᵀG) is diag(1.5, 1.5) in the plane, by hand. */
    public function testGeometryHasItsClosedForm(): void
    {
        $at = static fn (float $e, float $a): Satellite => new Satellite('GP', (int) $a, $e, $a, 45.0);
        self::assertEqualsWithDelta(sqrt(4 / 3), Sky::hdop([$at(90, 0), $at(0, 0), $at(0, 120), $at(0, 240)]) ?? 0.0, 1e-9);
        // Six around instead of three: twice the information, so the root of a half.
        $six = [$at(90, 0), ...array_map(static fn (int $i): Satellite => $at(0, 60.0 * $i), range(0, 5))];
        self::assertEqualsWithDelta(sqrt(2 / 3), Sky::hdop($six) ?? 0.0, 1e-9);
        self::assertNull(Sky::hdop([$at(90, 0), $at(0, 0), $at(0, 120)]), 'four unknowns');
        self::assertNull(Sky::hdop([$at(30, 0), $at(30, 0), $at(30, 0), $at(30, 0)]), 'all in one line');
    }

    public function testSatellitesRiseAndSet(): void
    {
        $sky = new Sky();
        $names = static fn (float $t): array => array_map(static fn (Satellite $s): string => "$s->system$s->number", $sky->at($t, true));
        $now = $names(1_800_000_000.0);
        $later = $names(1_800_014_400.0);
        self::assertNotSame([], array_diff($now, $later), 'some have set');
        self::assertNotSame([], array_diff($later, $now), 'others have risen');
        self::assertEquals($now, $names(1_800_000_000.0), 'whoever asks twice sees the same');
        for ($h = 0; $h < 24; ++$h) {
            self::assertGreaterThan(9, \count($names(1_800_000_000.0 + 3600 * $h)), "enough at all hours, $h");
        }
        // One of them is watched: it moves by less than its orbit allows, and never stands still.
        $watched = static function (float $t) use ($sky): ?Satellite {
            $mine = array_filter($sky->at($t, true), static fn (Satellite $s): bool => 'GP' === $s->system && 1 === $s->number);

            return array_values($mine)[0] ?? null;
        };
        $seen = 0;
        for ($i = 0; $i < 86400; $i += 600) {
            $seen += null === $watched(1_800_000_000.0 + $i) ? 0 : 1;
        }
        self::assertGreaterThan(20, $seen);
        self::assertLessThan(110, $seen);
    }

    public function testAWoodAndARoofTakeOfIt(): void
    {
        $sky = new Sky();
        $open = $wood = $roof = [];
        for ($i = 0; $i < 200; ++$i) {
            foreach ($sky->at(1_800_000_000.0 + 431.0 * $i, true) as $s) {
                if ($s->elevationDeg > 10 && $s->elevationDeg < 40) {
                    $s->azimuthDeg > 45 && $s->azimuthDeg < 145 ? $wood[] = $s->strengthDbHz : $open[] = $s->strengthDbHz;
                }
            }
            foreach ($sky->at(1_800_000_000.0 + 431.0 * $i, false) as $s) {
                $roof[] = $s->strengthDbHz ?? 0.0;
            }
        }
        $mean = static fn (array $of): float => array_sum($of) / max(1, \count($of));
        self::assertEqualsWithDelta(14.0, $mean($open) - $mean($wood), 1.5);
        self::assertLessThan(27.0, max($roof), 'none is strong enough under a roof');
    }
}
