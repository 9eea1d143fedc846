<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Esc;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\SwitchingTrade;
use Ortholex\Core\Esc\EscFitReason;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Esc\EscManifest;
use Ortholex\Core\Esc\OddOnes;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\FitVerdict;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Inability;
use Ortholex\Core\Settings\SettingError;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class EscTest extends TestCase
{
    /** @param list<EscFitReason> $reasons */
    #[DataProvider('fits')]
    public function testFitIsJudgedByLayoutClockAndDeadTime(EscManifest $manifest, FitVerdict $verdict, array $reasons): void
    {
        $fit = $manifest->fit(self::esc());
        self::assertSame($verdict, $fit->verdict);
        self::assertSame($reasons, array_column($fit->reasons, 'code'));
    }

    /** @return iterable<string, array{EscManifest, FitVerdict, list<EscFitReason>}> */
    public static function fits(): iterable
    {
        yield 'its own' => [self::manifest(), FitVerdict::Fits, [EscFitReason::MadeForIt]];
        yield 'layout' => [self::manifest(layout: 'P3'), FitVerdict::DoesNotFit, [EscFitReason::OtherLayout]];
        yield 'clock' => [self::manifest(clock: 32), FitVerdict::DoesNotFit, [EscFitReason::OtherClock]];
        yield 'shorter dead time' => [self::manifest(dead: 250), FitVerdict::DoesNotFit, [EscFitReason::DeadTimeShorter]];
        yield 'longer dead time' => [self::manifest(dead: 400), FitVerdict::DoesNotFit, [EscFitReason::DeadTimeDiffers]];
        yield 'all three' => [
            self::manifest('P3', 32, 250),
            FitVerdict::DoesNotFit,
            [EscFitReason::OtherLayout, EscFitReason::OtherClock, EscFitReason::DeadTimeShorter],
        ];
        yield 'older' => [self::manifest(version: '1.1.0'), FitVerdict::FitsBut, [EscFitReason::Older]];
        yield 'pre-release' => [self::manifest(version: '1.5.0-pre1'), FitVerdict::FitsBut, [EscFitReason::PreRelease]];
        yield 'other family' => [
            self::manifest(product: 'Bracken', rpm: false),
            FitVerdict::FitsBut,
            [EscFitReason::NoRpmFeedback, EscFitReason::OtherFamily],
        ];
    }

    /** The timer counts the clock down to the switching period: 64 MHz at 40 kHz gives 1600 steps, 32 MHz at 80 kHz 400. */
    public function testTooFewStepsOfOutputAreSaid(): void
    {
        self::assertSame([1600, 800, 3200, 400, 0], [
            SwitchingTrade::steps(64, 40),
            SwitchingTrade::steps(64, 80),
            SwitchingTrade::steps(64, 20),
            SwitchingTrade::steps(32, 80),
            SwitchingTrade::steps(32, 0),
        ]);
        self::assertSame(FitVerdict::Fits, self::manifest(khz: 80)->fit(self::esc())->verdict);
        $fit = self::manifest(khz: 160)->fit(self::esc());
        self::assertSame(FitVerdict::FitsBut, $fit->verdict);
        self::assertEquals([Fact::of(EscFitReason::FewSteps, mhz: 64, steps: 400, khz: 160)], $fit->reasons);
    }

    public function testBytesThatTheManifestDoesNotVouchForOrThatLieElsewhereDoNotFit(): void
    {
        $image = HexImage::of([0x1000 => str_repeat('a', 64)], 0x1000);
        self::assertEquals([Fact::of(EscFitReason::OtherBytes)], self::manifest()->fit(self::esc(), $image)->reasons);
        self::assertSame(FitVerdict::Fits, self::manifest(sha: $image->sha256())->fit(self::esc(), $image)->verdict);
        $elsewhere = HexImage::of([0x4FF0 => str_repeat('a', 64)], 0x4FF0);
        self::assertEquals(
            [Fact::of(EscFitReason::OutsideFlash, from: 0x4FF0, to: 0x502F, flash_from: 0x1000, flash_to: 0x4FFF)],
            self::manifest(sha: $elsewhere->sha256())->fit(self::esc(), $elsewhere)->reasons,
        );
    }

    public function testAManifestNamesTheKeyItLacks(): void
    {
        $this->expectException(FirmwareError::class);
        $this->expectExceptionMessage('clock_mhz');
        EscManifest::fromArray(['product' => 'Withy', 'version' => '1.4.0', 'layout' => 'K7', 'clock_mhz' => '64']);
    }

    public function testTheMajorityRules(): void
    {
        self::assertSame([16.0, ['c']], self::odd(['a' => 16.0, 'b' => 16.0, 'c' => 22.0, 'd' => 16.0]));
        self::assertSame([16.0, []], self::odd(['a' => 16.0, 'b' => 16.0]));
        self::assertSame(
            [null, ['a', 'b', 'c', 'd']],
            self::odd(['a' => 1, 'b' => 1, 'c' => 2, 'd' => 2]),
            'two against two: nobody is right',
        );
        self::assertSame([true, ['b']], self::odd(['a' => true, 'b' => false, 'c' => true]));
        self::assertSame([null, []], self::odd([]));
        self::assertSame(['x', []], self::odd(['a' => 'x']));
    }

    public function testEscSettingsAreKnownByNameAndChecked(): void
    {
        $catalogue = Catalogue::loam();
        $version = Version::parse('25.02');
        self::assertTrue($catalogue->has('esc.rear_left.advance_deg', $version));
        self::assertSame(20.0, $catalogue->get('esc.rear_left.advance_deg', $version)->check('20', $version));
        foreach (['esc.tail.advance_deg', 'esc.rear_left.punch', 'esc.rear_left', 'esc..advance_deg'] as $name) {
            self::assertFalse($catalogue->has($name, $version), $name);
        }
        self::assertFalse($catalogue->defaults($version)->has('esc.rear_left.advance_deg'), 'a board holds none of them');
        $this->expectException(SettingError::class);
        $catalogue->get('esc.front_left.advance_deg', $version)->check(44, $version);
    }

    public function testWhatHardwareOrFamilyCannotHonourSaysWhy(): void
    {
        self::assertSame(Inability::MeasuresNoHeat, EscTable::unable('temperature_limit_c', self::esc())?->code);
        self::assertNull(EscTable::unable('temperature_limit_c', self::esc(heat: true)));
        self::assertSame(Inability::FirmwareDoesNotKnow, EscTable::unable('chirp_wait_min', self::esc('Bracken'))?->code);
        self::assertNull(EscTable::unable('direction', self::esc('Bracken')));
        self::assertSame(Inability::OnlyBootloaderRuns, EscTable::unable('direction', self::esc(''))?->code);
        self::assertSame(
            ['direction', 'advance_deg', 'brake_on_slow_down', 'starting_current_pct', 'low_us', 'high_us', 'tone_loudness_pct'],
            EscTable::defaults(self::esc('Bracken'))->names(),
        );
    }

    /** However pads are permuted, each ESC's settings go with its pad, and back again with the permutation undone. */
    public function testEscSettingsFollowTheirPads(): void
    {
        mt_srand(11);
        $places = ['front_right', 'rear_right', 'rear_left', 'front_left', 'right', 'left'];
        for ($n = 0; $n < 200; ++$n) {
            $settings = ['gain.roll.p' => 30.0];
            foreach ($places as $i => $place) {
                $settings['pad.'.($i + 1).'.drives'] = $place;
                $settings["esc.$place.advance_deg"] = (float) $i;
                $settings["esc.$place.direction"] = 0 === $i % 2 ? 'as_wired' : 'swapped';
            }
            $to = $places;
            shuffle($to);
            $pads = [];
            foreach ($to as $i => $place) {
                $pads['pad.'.($i + 1).'.drives'] = $place;
            }
            $settings = SettingSet::of($settings);
            $pads = SettingSet::of($pads);
            $moved = EscTable::underPadMap($settings, $pads);
            foreach ($to as $i => $place) {
                self::assertSame((float) $i, $moved["esc.$place.advance_deg"], 'what hangs on the pad stays on the pad');
            }
            self::assertSame(30.0, $moved['gain.roll.p']);
            $back = EscTable::underPadMap($moved->with($pads), $settings)->with($settings->among($pads));
            self::assertEquals($settings->toArray(), $back->toArray());
        }
        $both = SettingSet::of(['pad.1.drives' => 'rear', 'esc.rear.direction' => 'as_wired']);
        self::assertSame(['pad.1.drives'], EscTable::without($both)->names());
        self::assertSame(['esc.rear.direction'], EscTable::only($both)->names());
    }

    /**
     * @param array<string, float|int|bool|string> $values
     *
     * @return array{float|int|bool|string|null, list<string>}
     */
    private static function odd(array $values): array
    {
        $odd = OddOnes::of($values);

        return [$odd->common, $odd->odd];
    }

    private static function esc(string $family = 'Withy', bool $heat = false): EscIdentity
    {
        return new EscIdentity(
            1,
            'Osier 20',
            'K7',
            64,
            350,
            $heat,
            0x1000,
            0x5000,
            512,
            $family,
            '' === $family ? null : Version::parse('1.2.3'),
            20,
            'Withy' === $family,
        );
    }

    private static function manifest(
        string $layout = 'K7',
        int $clock = 64,
        int $dead = 350,
        string $version = '1.4.0',
        string $product = 'Withy',
        bool $rpm = true,
        string $sha = '',
        int $khz = 40,
    ): EscManifest {
        return new EscManifest($product, Version::parse($version), $layout, $clock, $dead, $khz, $rpm, $sha, '2026-08-02', '');
    }
}
