<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Migration\FormerNames;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What was written down under the first names is read as the same settings. */
final class FormerNamesTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>}> */
    public static function carried(): iterable
    {
        yield 'another name' => [['notch.tracking.count' => 2], ['notch.tracking.peaks' => 2]];
        yield 'the older law' => [['gain.attenuation' => 20], ['gain.throttle_fall_older_pct' => 20]];
        yield 'the level that ends a flight' => [['pack.land_now_cell_v' => 3.35], ['pack.flight_end_cell_v' => 3.35]];
        yield 'a width as a share of its centre' => [['notch.motor.width_q' => 5.0], ['notch.motor.width_pct' => 20.0]];
        yield 'a narrow one' => [['notch.tracking.width_q' => 12.0], ['notch.tracking.width_pct' => 8.3]];
        yield 'two ends become a band' => [
            ['notch.tracking.low_hz' => 120.0, 'notch.tracking.high_hz' => 480.0],
            ['notch.tracking.band_hz' => '120,480'],
        ];
        yield 'in whichever order they stood' => [
            ['notch.tracking.high_hz' => 480.0, 'notch.tracking.low_hz' => 120.0],
            ['notch.tracking.band_hz' => '120,480'],
        ];
        yield 'one end alone has the other of then' => [['notch.tracking.high_hz' => 480.0], ['notch.tracking.band_hz' => '100,480']];
        yield 'ends the wrong way round' => [
            ['notch.tracking.low_hz' => 400.0, 'notch.tracking.high_hz' => 200.0],
            ['notch.tracking.band_hz' => '200,400'],
        ];
        yield 'tenths of a second' => [['link_loss.hold_ds' => 12], ['link_loss.hold_ms' => 1200]];
        yield 'microseconds of idle' => [['motors.idle_us' => 55], ['motors.idle_permille' => 55]];
        yield 'the recorder in memory' => [['recorder.kind' => 'flash'], ['recorder.writes_to' => 'board_memory']];
        yield 'the recorder on a wire' => [['recorder.kind' => 'serial'], ['recorder.writes_to' => 'wire']];
        yield 'no recorder' => [['recorder.kind' => 'none'], ['recorder.writes_to' => 'nothing']];
        yield 'where a motor sits' => [['arm.rear_left.right_mm' => -80.0], ['motor_place.rear_left.right_mm' => -80.0]];
        yield 'of an ESC' => [
            ['esc.rear_left.direction' => 'reversed', 'esc.rear_left.sync_loss_response' => 'strong'],
            ['esc.rear_left.direction' => 'swapped', 'esc.rear_left.sync_loss_power_cut_pct' => 50.0],
        ];
        yield 'in an ESC' => [
            ['direction' => 'normal', 'sync_loss_response' => 'gentle', 'advance_deg' => 16.0],
            ['direction' => 'as_wired', 'sync_loss_power_cut_pct' => 25.0, 'advance_deg' => 16.0],
        ];
        $same = ['gain.roll.p' => 30.0, 'pad.1.drives' => 'none'];
        yield 'what has its name since ever' => [$same, $same];
        yield 'a direction of a channel is none of an ESC' => [['channel.roll.reversed' => true], ['channel.roll.reversed' => true]];
        yield 'nothing' => [[], []];
    }

    /**
     * @param array<string, mixed> $then
     * @param array<string, mixed> $now
     */
    #[DataProvider('carried')]
    public function testItIsTheSameSetting(array $then, array $now): void
    {
        self::assertSame($now, FormerNames::carry($then));
        self::assertSame($now, FormerNames::carry($now), 'carried once is carried');
    }

    public function testTheFeelOfThenIsMetAtItsThreePoints(): void
    {
        $dice = new Lcg(90);
        for ($round = 0; $round < 300; ++$round) {
            $centre = (float) $dice->whole(20, 400);
            $full = $centre + $dice->whole(20, 800);
            // Any half-stick rate that the law of then could meet.
            $half = round($centre / 2 + ($full / 2 - $centre / 2) * (0.1 + 0.8 * ($dice->next() + 0.5)));
            $power = log(($full - $centre) / max(1e-9, $half - $centre / 2), 2);
            if ($half <= $centre / 2 || $half >= $full / 2) {
                continue;
            }
            $now = FormerNames::carry([
                'feel.roll.centre_dps' => $centre,
                'feel.roll.half_stick_dps' => $half,
                'feel.roll.full_stick_dps' => $full,
            ]);
            self::assertSame(['feel.roll.quarter_dps', 'feel.roll.half_dps', 'feel.roll.full_dps'], array_keys($now));
            self::assertSame([$half, $full], [$now['feel.roll.half_dps'], $now['feel.roll.full_dps']]);
            $quarter = $centre / 4 + ($full - $centre) * 0.25 ** $power;
            self::assertIsFloat($now['feel.roll.quarter_dps']);
            self::assertEqualsWithDelta(min(max(5.0, $quarter), $half - 1), $now['feel.roll.quarter_dps'], 0.51);
            // And it is a feel.
            self::assertEqualsWithDelta($half, Feel::of($now['feel.roll.quarter_dps'], $half, $full)->rate(0.5), 1e-9);
        }
    }

    public function testEverySettingOfThenEndsAsOneThatThereIsAndIsSound(): void
    {
        $then = [
            '25.02' => ['motors.idle_us' => 61, 'link_loss.hold_ds' => 7, 'gain.attenuation' => 30, 'filter.gyro_hz' => 160.0],
            '25.08' => ['motors.idle_us' => 61, 'rate_path.stage.1.cutoff_hz' => 160.0],
            '26.01' => ['motors.idle_pct' => 6.1, 'link_loss.hold_s' => 0.7, 'gain.attenuation' => 30],
            '26.06' => ['motors.idle_pct' => 6.1, 'gain.throttle_fall_pct' => 20.0],
        ];
        $always = [
            'notch.motor.width_q' => 3.5, 'notch.tracking.count' => 2, 'notch.tracking.width_q' => 15.0,
            'notch.tracking.low_hz' => 60.0, 'notch.tracking.high_hz' => 900.0, 'recorder.kind' => 'serial', 'pack.land_now_cell_v' => 3.3,
            'feel.yaw.centre_dps' => 120.0, 'feel.yaw.half_stick_dps' => 180.0, 'feel.yaw.full_stick_dps' => 420.0,
        ];
        foreach (Place::names() as $place) {
            $always += ["arm.$place.forward_mm" => 12.0, "arm.$place.right_mm" => -7.0];
            $always += ["esc.$place.direction" => 'reversed', "esc.$place.sync_loss_response" => 'off'];
        }
        foreach ($then as $release => $of) {
            $version = Version::parse($release);
            foreach (FormerNames::carry($of + $always) as $name => $value) {
                $setting = Catalogue::loam()->get($name, $version);
                self::assertEquals($value, $setting->check($value, $version), "$name in $release");
                self::assertSame($name, EscTable::owns($name) ? $setting->name : $name);
            }
        }
    }
}
