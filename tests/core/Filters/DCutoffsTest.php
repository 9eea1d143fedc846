<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\Cutoff\DCutoffs;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class DCutoffsTest extends TestCase
{
    /** Rotation that follows the stick up to 25 Hz, and noise of its own above: there the band ends. */
    public function testTheBandEndsWhereRotationNoLongerFollowsTheStick(): void
    {
        $lcg = new Lcg(8);
        $set = $rate = [];
        $a = $b = 0.0;
        for ($i = 0; $i < 40_000; ++$i) {
            // Stick: white through a first-order low-pass at 25 Hz, twice; the rate adds as much again as is left of it at about 50 Hz.
            $a += 0.145 * (40 * $lcg->normal() - $a);
            $b += 0.145 * ($a - $b);
            $set[] = $b;
            $rate[] = $b + 8.0 * $lcg->normal();
        }
        $band = DCutoffs::band([$set], [$rate], 1000.0);
        self::assertNotNull($band);
        self::assertGreaterThan(25, $band);
        self::assertLessThan(90, $band);
        $still = array_fill(0, 40_000, 0.0);
        self::assertNull(DCutoffs::band([$still], [$rate], 1000.0), 'a stick at rest tells no band');
        self::assertNull(DCutoffs::band([\array_slice($set, 0, 900)], [\array_slice($rate, 0, 900)], 1000.0), 'nor does one second');
    }

    public function testTheHighestCutoffThatKeepsNoiseUnderItsShareIsPicked(): void
    {
        // Signal up to 20 Hz, white noise above: the share rises with the cutoff.
        $density = [];
        for ($k = 0; $k <= 500; ++$k) {
            $density[] = $k <= 10 ? 50.0 : 0.002;
        }
        $table = DCutoffs::of(Spectrum::of(2.0, $density, 10), SettingSet::none(), 2.0, 20.0, 4000.0, 2000.0);
        self::assertNotNull($table->pick);
        $shares = array_map(static fn ($c): float => $c->share, $table->table);
        $sorted = $shares;
        sort($sorted);
        self::assertSame($sorted, $shares);
        self::assertLessThanOrEqual(DCutoffs::TARGET_SHARE, $shares[$table->pick]);
        if (isset($shares[$table->pick + 1])) {
            self::assertGreaterThan(DCutoffs::TARGET_SHARE, $shares[$table->pick + 1]);
        }
        $delays = array_map(static fn ($c): float => $c->delayMs, $table->table);
        self::assertSame($delays[0], max($delays), 'the lowest costs most');
        $loud = array_map(static fn (float $v): float => $v < 1 ? 4.0 : $v, $density);
        self::assertNull(DCutoffs::of(Spectrum::of(2.0, $loud, 10), SettingSet::none(), 2.0, 20.0, 4000.0, 2000.0)->pick);
    }
}
