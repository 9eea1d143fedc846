<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Control;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelFigures;
use Ortholex\Core\Control\TestFeel;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use PHPUnit\Framework\TestCase;

/** What a feel means in the hand, and the one for flights that gather logs. */
final class InTheHandTest extends TestCase
{
    public function testFiguresFollowFromTheCurve(): void
    {
        // Straight: 400 deg/s at full stick is 0.8 deg/s for each of the 500 µs of a half span.
        $figures = FeelFigures::of(Feel::of(100, 200, 400), 0.625, 500);
        self::assertEqualsWithDelta(0.9, $figures->turnS, 1e-9);
        self::assertEqualsWithDelta(0.5, $figures->stepDps, 1e-9);
        self::assertEqualsWithDelta(0.5, $figures->halfShare, 1e-9);
        $soft = FeelFigures::of(Feel::of(40, 120, 600), 0.625, 450);
        self::assertLessThan(0.25, $soft->stepDps, 'a soft centre resolves finer');
        self::assertEqualsWithDelta(0.2, $soft->halfShare, 1e-9);
    }

    public function testTheTestFeelIsStrongAtTheCentreSlowAtTheEndAndWithoutWhatHidesPAndD(): void
    {
        $defaults = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT));
        $test = $defaults->with(TestFeel::settings($defaults));
        foreach (Axis::cases() as $axis) {
            $usual = Feel::in($defaults, $axis);
            $feel = Feel::in($test, $axis);
            self::assertLessThan(0.6 * $usual->full(), $feel->full());
            self::assertSame(0.0, $test["gain.$axis->value.ff"]);
            self::assertLessThan(0.05, FeelFigures::of($feel, 0.625, 500)->halfShare - 0.6, 'nearly straight');
        }
        self::assertGreaterThan(Feel::in($defaults, Axis::Roll)->centreSlope(), Feel::in($test, Axis::Roll)->centreSlope());
        $few = TestFeel::settings(SettingSet::of(['feel.roll.full_dps' => 600.0]));
        self::assertSame(['feel.roll.full_dps' => 330.0], $few->toArray(), 'only what the craft has');
    }
}
