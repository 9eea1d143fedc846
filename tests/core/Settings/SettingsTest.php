<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Code;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\ClashWeight;
use Ortholex\Core\Settings\Consistency\Consistency;
use Ortholex\Core\Settings\Migration\Fate;
use Ortholex\Core\Settings\Migration\FateKind;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\SettingError;
use Ortholex\Core\Settings\SettingType;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SettingsTest extends TestCase
{
    private const VERSIONS = ['25.02', '25.08', '26.01', '26.06', '26.10-pre1'];

    public function testEveryRowOfTheCatalogueHoldsTogether(): void
    {
        $catalogue = Catalogue::loam();
        self::assertGreaterThan(100, \count($catalogue->all()));
        foreach ($catalogue->all() as $name => $setting) {
            self::assertMatchesRegularExpression('~^[a-z0-9_]+(\.[a-z0-9_]+)+$~', $name);
            foreach (self::VERSIONS as $version) {
                $v = Version::parse($version);
                if ($setting->existsIn($v)) {
                    self::assertSame($setting->default, $setting->check($setting->default, $v), "$name keeps its default in $version");
                }
            }
        }
    }

    /** @return iterable<string, array{string, mixed, float|int|bool|string}> */
    public static function sound(): iterable
    {
        yield 'text of a number' => ['gain.roll.p', ' 31.5 ', 31.5];
        yield 'decimal comma' => ['gain.roll.d', '2,4', 2.4];
        yield 'put on its grid' => ['gain.roll.p', 31.3, 31.5];
        yield 'whole' => ['motors.rotor_magnets', '12', 12];
        yield 'switch by word' => ['motors.rpm_feedback', 'on', true];
        yield 'switch by nothing' => ['motors.rpm_feedback', '', false];
        yield 'choice' => ['motors.protocol', 'dshot600', 'dshot600'];
        yield 'list, sorted and once each' => ['notch.motor.orders', '3, 1,3', '1,3'];
        yield 'list as a list' => ['notch.motor.orders', [2, 1], '1,2'];
        yield 'empty list' => ['notch.motor.orders', '', ''];
    }

    #[DataProvider('sound')]
    public function testSoundValuesAreTaken(string $name, mixed $given, float|int|bool|string $kept): void
    {
        $v = Version::parse('26.06');
        self::assertSame($kept, Catalogue::loam()->get($name, $v)->check($given, $v));
    }

    /** @return iterable<string, array{string, mixed, string}> */
    public static function unsound(): iterable
    {
        yield 'no number' => ['gain.roll.p', 'lots', '“lots” is not a number'];
        yield 'too much' => ['gain.roll.p', 500, 'outside 0 to 120'];
        yield 'infinite' => ['gain.roll.p', '1e999', 'outside'];
        yield 'not whole' => ['motors.rotor_magnets', 12.5, 'not a whole number'];
        yield 'no switch' => ['motors.rpm_feedback', 'perhaps', 'neither on nor off'];
        yield 'no choice of it' => ['motors.protocol', 'smoke', 'none of pwm'];
        yield 'no list' => ['notch.motor.orders', '1,x', '“x” is not a whole number from 1 to 6'];
        yield 'out of the list' => ['notch.motor.orders', '9', '“9”'];
        yield 'no zone' => ['action.arm.on_in', 'up', '“up” is none'];
        yield 'a channel there is not' => ['action.arm.on_in', '17:1700-', 'no channel 17'];
        yield 'an array' => ['gain.roll.p', [], 'a array is not a number'];
        yield 'null' => ['gain.roll.p', null, 'is not a number'];
    }

    #[DataProvider('unsound')]
    public function testUnsoundValuesAreRefusedByName(string $name, mixed $given, string $why): void
    {
        $v = Version::parse('26.06');
        try {
            Catalogue::loam()->get($name, $v)->check($given, $v);
            self::fail('It was taken.');
        } catch (SettingError $e) {
            self::assertSame($name, $e->setting);
            self::assertStringContainsString($why, $e->getMessage());
        }
    }

    public function testASettingOfAnotherVersionIsRefused(): void
    {
        $this->expectException(SettingError::class);
        $this->expectExceptionMessage('Loam 26.06 does not have it');
        Catalogue::loam()->get('motors.idle_permille', Version::parse('26.06'));
    }

    /** @return iterable<string, array{string, string}> */
    public static function moves(): iterable
    {
        foreach (self::VERSIONS as $from) {
            foreach (self::VERSIONS as $to) {
                yield "$from to $to" => [$from, $to];
            }
        }
    }

    #[DataProvider('moves')]
    public function testEverySettingEndsInExactlyOneFate(string $from, string $to): void
    {
        $catalogue = Catalogue::loam();
        [$f, $t] = [Version::parse($from), Version::parse($to)];
        for ($seed = 1; $seed <= 20; ++$seed) {
            $old = self::randomSettings($catalogue, $f, $seed);
            $migration = Migration::between($catalogue, $old, $f, $t);
            $ended = $came = [];
            foreach ($migration->fates as $fate) {
                if (null !== $fate->oldName) {
                    $ended[] = $fate->oldName;
                }
                if (null !== $fate->newName) {
                    $came[] = $fate->newName;
                }
                self::assertSame(FateKind::New === $fate->kind, null === $fate->oldName);
                self::assertSame(FateKind::Dropped === $fate->kind, null === $fate->newName);
            }
            self::assertEqualsCanonicalizing($old->names(), $ended, 'each old setting once');
            self::assertEqualsCanonicalizing(array_keys($catalogue->of($t)), $came, 'each new setting once');
            foreach ($migration->settings as $name => $value) {
                self::assertSame($value, $catalogue->get($name, $t)->check($value, $t), "$name is sound in $to");
            }
            if ($from === $to) {
                self::assertSame($old->toArray(), $migration->settings->among($old)->toArray());
                self::assertCount(\count($old), $migration->ofKind(FateKind::Kept));
            }
        }
    }

    public function testNamesUnitsAndRangesChangeAsReleased(): void
    {
        $catalogue = Catalogue::loam();
        $old = $catalogue->defaults(Version::parse('25.02'))->with([
            'filter.gyro_hz' => 150.0,
            'motors.idle_permille' => 62,
            'link_loss.hold_ms' => 1200,
            'gain.roll.d' => 11.5,
            'link_loss.tone' => false,
        ]);
        $m = Migration::between($catalogue, $old, Version::parse('25.02'), Version::parse('26.06'));
        self::assertSame(150.0, $m->settings['rate_path.stage.1.cutoff_hz']);
        self::assertSame(6.2, $m->settings['motors.idle_pct']);
        self::assertSame(1.2, $m->settings['link_loss.hold_s']);
        self::assertSame(8.0, $m->settings['gain.roll.d']);
        self::assertSame(['gain.roll.d'], array_map(static fn (Fate $f): ?string => $f->newName, $m->ofKind(FateKind::Clipped)));
        self::assertEqualsCanonicalizing(
            ['link_loss.tone', 'gain.throttle_fall_older_pct'],
            array_map(static fn (Fate $f): ?string => $f->oldName, $m->ofKind(FateKind::Dropped)),
        );
        $back = Migration::between($catalogue, $m->settings, Version::parse('26.06'), Version::parse('25.02'));
        self::assertSame(150.0, $back->settings['filter.gyro_hz']);
        self::assertSame(62, $back->settings['motors.idle_permille']);
    }

    /** @return iterable<string, array{array<string, float|int|bool|string>, string, ClashWeight}> */
    public static function clashes(): iterable
    {
        yield 'cutoff above half the loop rate' => [
            ['motors.loop_rate_hz' => '1000', 'rate_path.stage.1.cutoff_hz' => 600.0],
            'rate_path.stage.1.cutoff_hz',
            ClashWeight::Refuse,
        ];
        yield 'notches without feedback' => [['notch.motor.orders' => '1'], 'notch.motor.orders', ClashWeight::Warn];
        yield 'feedback on an analogue signal' => [
            ['motors.rpm_feedback' => true, 'motors.protocol' => 'pwm'],
            'motors.rpm_feedback',
            ClashWeight::Refuse,
        ];
        yield 'a signal longer than the loop' => [
            ['motors.protocol' => 'dshot150', 'motors.rpm_feedback' => true, 'motors.loop_rate_hz' => '4000'],
            'motors.loop_rate_hz',
            ClashWeight::Refuse,
        ];
        yield 'pulses longer than the loop' => [['motors.protocol' => 'pwm'], 'motors.loop_rate_hz', ClashWeight::Refuse];
        yield 'a feel no curve passes' => [['feel.roll.half_dps' => 700.0], 'feel.roll.half_dps', ClashWeight::Refuse];
        yield 'a span that falls' => [
            ['channel.roll.low_us' => 1400.0, 'channel.roll.middle_us' => 1300.0],
            'channel.roll.middle_us',
            ClashWeight::Refuse,
        ];
        yield 'no warning before landing' => [['pack.flight_end_cell_v' => 3.7], 'pack.flight_end_cell_v', ClashWeight::Warn];
        yield 'too much work' => [
            ['motors.loop_rate_hz' => '8000', 'notch.motor.orders' => '1,2,3,4', 'motors.rpm_feedback' => true],
            'motors.loop_rate_hz',
            ClashWeight::Refuse,
        ];
    }

    /** @param array<string, float|int|bool|string> $changed */
    #[DataProvider('clashes')]
    public function testClashesAreNamed(array $changed, string $setting, ClashWeight $weight): void
    {
        $v = Version::parse('26.06');
        $defaults = Catalogue::loam()->defaults($v);
        self::assertSame([], Consistency::of($defaults, $v, new Circumstances(4, 'F4')));
        $found = Consistency::of($defaults->with($changed), $v, new Circumstances(4, 'F4'));
        self::assertContains([$setting, $weight], array_map(static fn (Clash $c): array => [$c->setting, $c->weight], $found));
    }

    private static function randomSettings(Catalogue $catalogue, Version $version, int $seed): SettingSet
    {
        $dice = new Lcg($seed);
        $settings = [];
        foreach ($catalogue->of($version) as $name => $setting) {
            [$low, $high] = [] === $setting->ranges ? [0.0, 1.0] : $setting->range($version);
            $at = $low + ($high - $low) * ($dice->next() + 0.5);
            $settings[$name] = $setting->check(
                match ($setting->type) {
                    SettingType::Flag => $at > 0.5,
                    SettingType::Choice => $setting->choices[$dice->whole(0, \count($setting->choices) - 1)],
                    SettingType::Integers => (string) $dice->whole(1, 6),
                    SettingType::Zones => $dice->whole(5, 16).':'.$dice->whole(800, 1500).'-'.$dice->whole(1501, 2200),
                    SettingType::Cells => $dice->whole(1, 9).':'.$dice->whole(0, 20).','.$dice->whole(0, 10),
                    SettingType::Times => '1:always '.$dice->whole(2, 9).':disarmed',
                    SettingType::Band => $dice->whole((int) $low, 300).','.$dice->whole(301, (int) $high),
                    SettingType::Whole => (int) floor($at),
                    default => $at,
                },
                $version,
            );
        }

        return SettingSet::of($settings);
    }

    public function testWhereARuleBeginsIsWhereItSaysSo(): void
    {
        self::assertSame([], self::codes(['motors.loop_rate_hz' => '1000', 'rate_path.stage.1.cutoff_hz' => 479.0]));
        self::assertSame(
            [ClashCode::CutoffAboveLoop],
            self::codes(['motors.loop_rate_hz' => '1000', 'rate_path.stage.1.cutoff_hz' => 480.0]),
        );
        self::assertSame([], self::codes(['pack.warn_cell_v' => 3.6, 'pack.flight_end_cell_v' => 3.59]));
        self::assertSame(
            [ClashCode::NoWarningBeforeFlightEnd],
            self::codes(['pack.warn_cell_v' => 3.6, 'pack.flight_end_cell_v' => 3.6]),
            'a warning at the last level is none',
        );
        $ends = static fn (float $low, float $high, float ...$of): array => [
            'motors.protocol' => 'oneshot125', 'pad.1.drives' => 'rear_left', 'pad.2.drives' => 'front_left', 'motors.idle_pct' => 5.0,
            'esc.rear_left.low_us' => $low, 'esc.rear_left.high_us' => $high,
            'esc.front_left.low_us' => $of[0] ?? $low, 'esc.front_left.high_us' => $of[1] ?? $high,
        ];
        self::assertSame([], self::ends($ends(1049, 2000)));
        self::assertSame([ClashCode::IdleBelowEndPoint], self::ends($ends(1050, 2000)), '5 % is sent as 1,050 µs');
        self::assertSame([ClashCode::FullAboveOutputs], self::ends($ends(1000, 2001)));
        self::assertSame([], self::ends($ends(1000, 2000, 1003, 1997)));
        self::assertSame([ClashCode::EndPointsApart], self::ends($ends(1000, 2000, 1004)));
        self::assertSame([ClashCode::EndPointsApart], self::ends($ends(1000, 2000, 1000, 1990)));
        self::assertSame([], self::ends(['motors.protocol' => 'dshot300'] + $ends(1200, 2200, 900)), 'a number has no length');
    }

    /**
     * @param array<string, float|string> $changed
     *
     * @return list<Code> those of end points
     */
    private static function ends(array $changed): array
    {
        $of = [ClashCode::IdleBelowEndPoint, ClashCode::FullAboveOutputs, ClashCode::EndPointsApart];

        return array_values(array_filter(self::codes($changed), static fn (Code $code): bool => \in_array($code, $of, true)));
    }

    /**
     * @param array<string, float|int|bool|string> $changed
     *
     * @return list<Code>
     */
    private static function codes(array $changed): array
    {
        $v = Version::parse(Catalogue::CURRENT);
        $found = Consistency::of(Catalogue::loam()->defaults($v)->with($changed), $v, new Circumstances(4, 'F7'));

        return array_map(static fn (Clash $c): Code => $c->what->code, $found);
    }
}
