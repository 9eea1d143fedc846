<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Craft\MotorTurn;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;
use Ortholex\Core\Settings\SettingGroup;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What each kind of setting takes from a form, a file or a program, and what it keeps. */
final class KindsTest extends TestCase
{
    /** @return iterable<string, array{mixed, string|null}> given, kept; null where it is refused */
    public static function bands(): iterable
    {
        yield 'as kept' => ['150,420', '150,420'];
        yield 'the higher first' => ['420,150', '150,420'];
        yield 'with a space' => ['150, 420', '150,420'];
        yield 'a dash' => ['150-420', '150,420'];
        yield 'a long dash' => ['150 – 420', '150,420'];
        yield 'in words' => ['150 to 420', '150,420'];
        yield 'dots' => ['150…420', '150,420'];
        yield 'a list' => [[150, 420], '150,420'];
        yield 'one end' => ['150', null];
        yield 'no end' => ['', null];
        yield 'three ends' => ['100,200,300', null];
        yield 'the same twice' => ['200,200', null];
        yield 'too low' => ['20,300', null];
        yield 'too high' => ['100,2000', null];
        yield 'a fraction' => ['100.5,200', null];
        yield 'words' => ['low to high', null];
        yield 'a flag' => [true, null];
        yield 'nothing' => [null, null];
    }

    #[DataProvider('bands')]
    public function testABandIsTwoEndsTheLowerFirst(mixed $given, ?string $kept): void
    {
        $band = Setting::band('a.band_hz', SettingGroup::Filters, 'Hz', '85,340', 60, 900);
        self::assertKept($kept, $band, $given);
    }

    /** @return iterable<string, array{mixed, string|null}> */
    public static function choices(): iterable
    {
        yield 'a word' => ['4000', '4000'];
        yield 'a number, as YAML has it' => [4000, '4000'];
        yield 'a fraction that is whole' => [4000.0, '4000'];
        yield 'another number' => [3000, null];
        yield 'a flag' => [true, null];
        yield 'a list' => [['4000'], null];
        yield 'nothing' => [null, null];
        yield 'with a space' => ['4000 ', null];
    }

    #[DataProvider('choices')]
    public function testAChoiceOfNumbersTakesNumbers(mixed $given, ?string $kept): void
    {
        $rate = Catalogue::loam()->get('motors.loop_rate_hz', Version::parse('26.06'));
        self::assertKept($kept, $rate, $given);
    }

    /** Every kept value is taken again as itself: what was written out comes in unchanged. */
    public function testWhatIsKeptIsTakenAgain(): void
    {
        $dice = new Lcg(3);
        foreach (['25.02', '25.08', '26.01', '26.06'] as $release) {
            $version = Version::parse($release);
            foreach (Catalogue::loam()->of($version) as $setting) {
                $values = [$setting->default, ...$setting->choices];
                if ($setting->type->isNumeric()) {
                    [$low, $high] = $setting->range($version);
                    $values = [...$values, $low, $high, $low + (($high - $low) * $dice->whole(0, 1000)) / 1000];
                }
                foreach ($values as $value) {
                    $kept = $setting->check(\is_float($value) && $setting->step >= 1 ? round($value) : $value, $version);
                    self::assertTrue(Setting::same($kept, $setting->check($kept, $version)), $setting->name);
                    $json = json_decode((string) json_encode($kept, \JSON_PRESERVE_ZERO_FRACTION));
                    self::assertTrue(Setting::same($kept, $setting->check($json, $version)), "$setting->name through JSON");
                }
            }
        }
    }

    public function testEveryPlaceOfACustomFrameHasItsThreeSettings(): void
    {
        $now = Catalogue::loam()->of(Version::parse('26.06'));
        $places = [];
        foreach ($now as $name => $setting) {
            if (1 === preg_match('~^motor_place\.([a-z_]+)\.(forward_mm|right_mm|turns)$~', $name, $m)) {
                $places[$m[1]][] = $m[2];
            }
        }
        self::assertNotSame([], $places);
        foreach ($places as $place => $kinds) {
            self::assertSame(['forward_mm', 'right_mm', 'turns'], $kinds, $place);
        }
        self::assertArrayNotHasKey('motor_place.front_left.turns', Catalogue::loam()->of(Version::parse('25.08')), 'it came with 26.01');
        self::assertSame([1, -1, 1, -1], [
            MotorTurn::Clockwise->spin(-1),
            MotorTurn::CounterClockwise->spin(1),
            MotorTurn::AgainstNeighbours->spin(1),
            MotorTurn::AgainstNeighbours->spin(-1),
        ]);
        self::assertSame(MotorTurn::Clockwise, MotorTurn::of(1));
        self::assertSame(MotorTurn::CounterClockwise, MotorTurn::of(-1));
    }

    private static function assertKept(?string $kept, Setting $setting, mixed $given): void
    {
        try {
            self::assertSame($kept, $setting->check($given, Version::parse('26.06')));
        } catch (SettingError $e) {
            self::assertNull($kept, $e->getMessage());
            self::assertSame($setting->name, $e->setting);
        }
    }
}
