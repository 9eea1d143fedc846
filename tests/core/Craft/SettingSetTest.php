<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Craft;

use Ortholex\Core\Craft\SetIsFixed;
use Ortholex\Core\Craft\SettingSet;
use PHPUnit\Framework\TestCase;

final class SettingSetTest extends TestCase
{
    public function testValuesAreReadByTypeAndWhatIsOfAnotherTypeIsTheDefault(): void
    {
        $set = SettingSet::of(['a' => 2, 'b' => '9600', 'c' => 'none', 'd' => true, 'e' => 0.5]);
        self::assertSame([2.0, 9600.0, 7.0, 7.0, 0.5, 7.0], array_map(static fn (string $n) => $set->number($n, 7), str_split('abcdef')));
        self::assertSame([2, 9600, 7, 7, 0, 7], array_map(static fn (string $n) => $set->whole($n, 7), str_split('abcdef')));
        self::assertSame(
            ['2', '9600', 'none', '–', '0.5', '–'],
            array_map(static fn (string $n) => $set->text($n, '–'), str_split('abcdef')),
        );
        self::assertSame([false, false, false, true, false, false], array_map($set->flag(...), str_split('abcdef')));
        self::assertFalse(SettingSet::of(['d' => 1])->flag('d'), 'one is not on');
        self::assertTrue(SettingSet::of(['d' => false])->has('d'), 'off is there');
        self::assertSame(2000.0, SettingSet::none()->loopHz());
        self::assertSame(4000.0, SettingSet::of(['motors.loop_rate_hz' => '4000'])->loopHz(), 'a choice that is a number');
    }

    public function testItIsNeverChangedOnlyMadeAnew(): void
    {
        $set = SettingSet::of(['a' => 1]);
        $more = $set->with(['a' => 2, 'b' => 3]);
        self::assertSame(['a' => 1], $set->toArray());
        self::assertSame(['a' => 2, 'b' => 3], $more->toArray());
        self::assertSame(['a' => 2, 'b' => 3], $set->with($more)->toArray());
        foreach (
            [
                static fn () => $set['a'] = 2,
                static function () use ($set): void {
                    unset($set['a']);
                },
                static fn () => $set['b'],
            ] as $act
        ) {
            try {
                $act();
                self::fail('It was changed, or read where there is nothing.');
            } catch (SetIsFixed) {
                self::assertSame(1, $set['a']);
            }
        }
    }

    /** Among and except split a set in two that make it whole again. */
    public function testAmongAndExceptPartIt(): void
    {
        $all = SettingSet::of(array_combine(range('a', 'h'), range(1, 8)));
        for ($mask = 0; $mask < 256; $mask += 7) {
            $other = $all->where(static fn (string $n): bool => 0 !== ($mask & (1 << (\ord($n) - 97))))->with(['a' => 99]);
            $in = $all->among($other);
            $out = $all->except($other);
            self::assertSame(\count($all), \count($in) + \count($out));
            self::assertEquals($all->toArray(), $out->with($in)->toArray());
            self::assertSame([], array_intersect($in->names(), $out->names()));
        }
        self::assertTrue($all->except($all)->isEmpty());
    }

    public function testPadsThatDriveNothingAreLeftOut(): void
    {
        $set = SettingSet::of([
            'pad.1.drives' => 'front_right',
            'pad.2.drives' => 'none',
            'pad.8.drives' => 'light',
            'pad.9.drives' => 'x',
        ]);
        self::assertSame([1 => 'front_right', 8 => 'light'], $set->drives());
    }

    public function testAsJsonItIsAlwaysAMap(): void
    {
        self::assertSame('{}', json_encode(SettingSet::none()), 'and never a list');
        self::assertSame('{"a":1,"b":true}', json_encode(SettingSet::of(['a' => 1, 'b' => true])));
        self::assertSame(['a' => 1], iterator_to_array(SettingSet::of(['a' => 1])));
    }
}
