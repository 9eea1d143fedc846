<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Craft\Place;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;
use Ortholex\Core\Settings\SettingType;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What holds of every setting of every release, whatever it is called. */
final class EverySettingTest extends TestCase
{
    /** @return iterable<string, array{string}> one release with every set of names and ranges */
    public static function releases(): iterable
    {
        foreach (['25.02', '25.08', '26.01', '26.06'] as $release) {
            yield $release => [$release];
        }
    }

    /** @return iterable<Setting> those of a release, and those of the ESC at one place */
    private static function settings(Version $version): iterable
    {
        yield from Catalogue::loam()->of($version);
        foreach (EscTable::rows() as $row) {
            yield $row->named('esc.rear_left.'.$row->name);
        }
    }

    #[DataProvider('releases')]
    public function testItsDefaultIsSoundAndStaysAsItIs(string $release): void
    {
        $version = Version::parse($release);
        foreach (self::settings($version) as $setting) {
            self::assertSame($setting->default, $setting->check($setting->default, $version), $setting->name);
        }
    }

    #[DataProvider('releases')]
    public function testItsEndsAreWithinAndAStepFurtherIsNot(string $release): void
    {
        $version = Version::parse($release);
        foreach (self::settings($version) as $setting) {
            if (!$setting->type->isNumeric()) {
                continue;
            }
            [$low, $high] = $setting->range($version);
            self::assertLessThan($high, $low, $setting->name);
            self::assertGreaterThan(0.0, $setting->step, $setting->name);
            self::assertEqualsWithDelta($low, $setting->check($low, $version), 1e-9, $setting->name);
            self::assertEqualsWithDelta($high, $setting->check($high, $version), 1e-9, $setting->name);
            foreach ([$low - $setting->step, $high + $setting->step, -\INF, \INF, \NAN, 1e300] as $beyond) {
                $error = self::refused($setting, $beyond, $version);
                self::assertStringStartsWith("{$setting->name}: ", $error->getMessage());
            }
        }
    }

    #[DataProvider('releases')]
    public function testWhateverIsTakenLiesOnItsGridAndIsTakenAgainAsItIs(string $release): void
    {
        $version = Version::parse($release);
        $dice = new Lcg(31);
        foreach (self::settings($version) as $setting) {
            if (!$setting->type->isNumeric()) {
                continue;
            }
            [$low, $high] = $setting->range($version);
            for ($round = 0; $round < 20; ++$round) {
                $given = $low + ($dice->next() + 0.5) * ($high - $low);
                $given = SettingType::Whole === $setting->type ? round($given) : $given;
                $kept = $setting->check($given, $version);
                self::assertIsNumeric($kept);
                self::assertSame($kept, $setting->check($kept, $version), $setting->name);
                self::assertEqualsWithDelta($given, $kept, $setting->step / 2 + 1e-9, "$setting->name is rounded to its grid, no further");
                $steps = (float) $kept / $setting->step;
                self::assertEqualsWithDelta(round($steps), $steps, 1e-6, "$setting->name: $kept lies on no step of $setting->step");
            }
        }
    }

    #[DataProvider('releases')]
    public function testTextIsTakenAsTheValueItSays(string $release): void
    {
        $version = Version::parse($release);
        foreach (self::settings($version) as $setting) {
            $value = $setting->default;
            $text = match (true) {
                \is_bool($value) => $value ? 'true' : 'false',
                \is_float($value) => number_format($value, $setting->digits(), '.', ''),
                default => (string) $value,
            };
            self::assertSame($value, $setting->check($text, $version), $setting->name);
            if (\is_float($value)) {
                self::assertSame($value, $setting->check(' '.str_replace('.', ',', $text).' ', $version), 'with a decimal comma too');
            }
        }
    }

    #[DataProvider('releases')]
    public function testWhatIsNoneOfItsValuesIsRefusedByName(string $release): void
    {
        $version = Version::parse($release);
        foreach (self::settings($version) as $setting) {
            $never = [null, [[]], new \stdClass(), "\xff", '12 or so', '0x1A', 'NaN', str_repeat('9', 400)];
            foreach ($never as $given) {
                $error = self::refused($setting, $given, $version);
                self::assertSame($setting->name, $error->setting);
                self::assertNotSame('', $error->reason);
                self::assertLessThan(1000, \strlen($error->getMessage()), 'what was given is not repeated without end');
            }
        }
    }

    #[DataProvider('releases')]
    public function testAChoiceHasItsDefaultAmongThemAndEachOnce(string $release): void
    {
        $version = Version::parse($release);
        foreach (self::settings($version) as $setting) {
            if (SettingType::Choice !== $setting->type) {
                continue;
            }
            self::assertContains($setting->default, $setting->choices, $setting->name);
            self::assertSame(array_unique($setting->choices), $setting->choices, $setting->name);
            foreach ($setting->choices as $choice) {
                self::assertSame($choice, $setting->check($choice, $version), $setting->name);
                self::refused($setting, strtoupper($choice).'_', $version);
            }
        }
    }

    #[DataProvider('releases')]
    public function testASwitchIsReadInEveryUsualWriting(string $release): void
    {
        $version = Version::parse($release);
        foreach (self::settings($version) as $setting) {
            if (SettingType::Flag !== $setting->type) {
                continue;
            }
            foreach ([true, 1, '1', 'true', 'on', 'yes'] as $on) {
                self::assertTrue($setting->check($on, $version), $setting->name);
            }
            foreach ([false, 0, '0', 'false', 'off', 'no', ''] as $off) {
                self::assertFalse($setting->check($off, $version), $setting->name);
            }
            self::refused($setting, 'maybe', $version);
            self::refused($setting, 2, $version);
        }
    }

    #[DataProvider('releases')]
    public function testAListIsKeptInOrderWithEachEntryOnce(string $release): void
    {
        $version = Version::parse($release);
        foreach (self::settings($version) as $setting) {
            if (SettingType::Integers !== $setting->type) {
                continue;
            }
            [$low, $high] = $setting->range($version);
            [$low, $high] = [(int) $low, (int) $high];
            self::assertSame("$low,$high", $setting->check("$high, $low ,$high", $version), $setting->name);
            self::assertSame("$low,$high", $setting->check([$high, $low], $version));
            self::assertSame('', $setting->check('', $version));
            self::refused($setting, (string) ($high + 1), $version);
            self::refused($setting, "$low,x", $version);
            self::refused($setting, '1.5', $version);
        }
    }

    public function testAnEscSettingBelongsToAPlaceThatThereIs(): void
    {
        foreach (Place::names() as $place) {
            foreach (EscTable::rows() as $key => $row) {
                $named = EscTable::named("esc.$place.$key");
                self::assertNotNull($named);
                self::assertSame($row->default, $named->default);
                self::assertSame([$place, $key], EscTable::parts("esc.$place.$key"));
            }
        }
        foreach (['esc.middle.advance_deg', 'esc.rear_left.colour', 'esc.rear_left', 'esc', 'esc..advance_deg'] as $name) {
            self::assertNull(EscTable::named($name), $name);
            self::assertFalse(Catalogue::loam()->has($name, Version::parse('26.06')), $name);
        }
    }

    private static function refused(Setting $setting, mixed $given, Version $version): SettingError
    {
        try {
            $kept = $setting->check($given, $version);
        } catch (SettingError $e) {
            return $e;
        }
        self::fail("$setting->name took ".get_debug_type($given).' as '.var_export($kept, true));
    }
}
