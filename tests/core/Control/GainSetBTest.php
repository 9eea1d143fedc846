<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Control;

use Ortholex\Core\Control\GainSetB;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use PHPUnit\Framework\TestCase;

final class GainSetBTest extends TestCase
{
    public function testItsGainsAreSharesOfSetA(): void
    {
        $set = SettingSet::of([
            'gain.roll.p' => 30.0,
            'gain.roll.d' => 2.5,
            'gain.yaw.ff' => 1.0,
            'gain_b.roll.p_pct' => 120.0,
            'gain_b.roll.d_pct' => 0.0,
            'gain_b.yaw.ff_pct' => 50.0,
            'filter.x' => 1,
        ]);
        $b = GainSetB::applied($set);
        self::assertSame(36.0, $b->number('gain.roll.p'));
        self::assertSame(0.0, $b->number('gain.roll.d'));
        self::assertSame(0.5, $b->number('gain.yaw.ff'));
        self::assertSame(1, $b['filter.x']);
        self::assertTrue(GainSetB::differs($set));
        // Once it flies it is no other than itself: applied again it stays as it is.
        self::assertFalse(GainSetB::differs($b));
        self::assertEquals($b, GainSetB::applied($b));
    }

    /** Nobody ever flies untuned gains because a lever was moved. */
    public function testUntouchedItFliesAsSetADoes(): void
    {
        $set = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with(['gain.roll.p' => 47.5, 'gain.pitch.i' => 133.0]);
        self::assertFalse(GainSetB::differs($set));
        self::assertEquals($set, GainSetB::applied($set));
        self::assertEquals(SettingSet::none(), GainSetB::applied(SettingSet::none()));
    }

    public function testEveryGainOfItIsASettingOfTheFirmware(): void
    {
        $known = Catalogue::loam()->of(Version::parse('25.02'));
        foreach (Axis::cases() as $axis) {
            foreach (GainSetB::TERMS as $term) {
                self::assertArrayHasKey(GainSetB::setting($axis, $term), $known);
            }
        }
    }
}
