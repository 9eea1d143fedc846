<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Esc;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\OddOnes;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** An ESC sits on a pad, and goes by the place that its pad drives; what departs from the others is found by majority. */
final class EscsAndPadsTest extends TestCase
{
    private const PLACES = ['front_right', 'rear_right', 'rear_left', 'front_left'];

    public function testUnderAnyMapEveryEscKeepsWhatItHolds(): void
    {
        $dice = new Lcg(40);
        for ($round = 0; $round < 200; ++$round) {
            $before = self::shuffled($dice);
            $after = self::shuffled($dice);
            $settings = self::mapped($before);
            foreach ($before as $pad => $place) {
                // What the ESC on a pad holds is known by the number of the pad.
                $settings["esc.$place.advance_deg"] = (float) (10 + $pad);
            }
            $moved = EscTable::underPadMap(SettingSet::of($settings), SettingSet::of(self::mapped($after)));
            foreach ($after as $pad => $place) {
                self::assertSame(10.0 + $pad, $moved["esc.$place.advance_deg"]);
            }
            self::assertCount(4, EscTable::only($moved), 'none more and none fewer');
            $back = EscTable::underPadMap($moved->with(self::mapped($after)), SettingSet::of(self::mapped($before)));
            self::assertEquals(EscTable::only(SettingSet::of($settings))->toArray(), EscTable::only($back)->toArray(), 'and back again');
        }
    }

    public function testAPadThatDrivesNothingAnyMoreTakesItsEscAway(): void
    {
        $map = self::mapped([1 => 'front_right', 2 => 'rear_right', 3 => 'rear_left', 4 => 'front_left']);
        $held = SettingSet::of([...$map, 'esc.rear_left.advance_deg' => 20.0, 'esc.front_left.advance_deg' => 15.0, 'gain.roll.p' => 33.0]);
        $moved = EscTable::underPadMap($held, SettingSet::of(['pad.4.drives' => 'rear_left', 'pad.3.drives' => 'none']));
        self::assertSame(15.0, $moved['esc.rear_left.advance_deg'], 'the one on pad 4 is there now');
        self::assertTrue($moved->has('esc.front_left.advance_deg'), 'no pad drives that place: nothing is said of what was known');
        self::assertSame(33.0, $moved['gain.roll.p'], 'what is none of an ESC stays');
    }

    public function testTheSameMapMovesNothing(): void
    {
        $map = self::mapped([1 => 'front_right', 2 => 'rear_right', 3 => 'rear_left', 4 => 'front_left']);
        $held = SettingSet::of([...$map, 'esc.rear_left.advance_deg' => 20.0]);
        self::assertEquals($held, EscTable::underPadMap($held, SettingSet::of($map)));
        self::assertEquals($held, EscTable::underPadMap($held, SettingSet::none()));
    }

    public function testWhatIsOfAnEscAndWhatOfTheBoardAreTheWhole(): void
    {
        $set = SettingSet::of(['esc.rear_left.advance_deg' => 20.0, 'gain.roll.p' => 33.0, 'esc.front_left.direction' => 'x']);
        self::assertSame(['gain.roll.p'], EscTable::without($set)->names());
        self::assertSame(['esc.rear_left.advance_deg', 'esc.front_left.direction'], EscTable::only($set)->names());
        self::assertEquals(SettingSet::of(['advance_deg' => 20.0]), EscTable::at('rear_left', $set));
        self::assertEquals(
            SettingSet::of(['esc.rear_left.advance_deg' => 20.0]),
            EscTable::prefixed('rear_left', EscTable::at('rear_left', $set)),
        );
    }

    /** @return iterable<string, array{array<string, float|int|bool|string>, float|int|bool|string|null, list<string>}> */
    public static function held(): iterable
    {
        yield 'none' => [[], null, []];
        yield 'one alone' => [['a' => 5], 5, []];
        yield 'all alike' => [['a' => 5, 'b' => 5, 'c' => 5], 5, []];
        yield 'one of four' => [['a' => 5, 'b' => 5, 'c' => 9, 'd' => 5], 5, ['c']];
        yield 'one of six, on or off' => [
            ['a' => true, 'b' => true, 'c' => true, 'd' => true, 'e' => false, 'f' => true],
            true,
            ['e'],
        ];
        yield 'two against two: nobody is odd against anybody' => [['a' => 5, 'b' => 5, 'c' => 9, 'd' => 9], null, ['a', 'b', 'c', 'd']];
        yield 'three of six are no majority' => [
            ['a' => 1, 'b' => 1, 'c' => 1, 'd' => 2, 'e' => 3, 'f' => 4],
            null,
            ['a', 'b', 'c', 'd', 'e', 'f'],
        ];
        yield 'a text is no number' => [['a' => '5', 'b' => 5, 'c' => '5'], '5', ['b']];
    }

    /**
     * @param array<string, float|int|bool|string> $values
     * @param list<string>                         $odd
     */
    #[DataProvider('held')]
    public function testTheMajorityIsFound(array $values, float|int|bool|string|null $common, array $odd): void
    {
        $found = OddOnes::of($values);
        self::assertSame($common, $found->common);
        self::assertSame($odd, $found->odd);
    }

    /** Two against two, three of a kind among six, all of their own: groups by value, the largest first, each place in one. */
    public function testWithoutAMajorityTheyStandInGroups(): void
    {
        $two = OddOnes::of(['front_left' => 13.0, 'front_right' => 13.0, 'rear_left' => 17.0, 'rear_right' => 17.0]);
        self::assertTrue($two->isSplit());
        self::assertSame([['front_left', 'front_right'], ['rear_left', 'rear_right']], $two->groups);
        $six = OddOnes::of(['a' => 1, 'b' => 2, 'c' => 2, 'd' => 2, 'e' => 3, 'f' => 3]);
        self::assertSame([['b', 'c', 'd'], ['e', 'f'], ['a']], $six->groups);
        self::assertFalse(OddOnes::of(['a' => 1, 'b' => 1, 'c' => 2])->isSplit(), 'two of three rule');
        self::assertFalse(OddOnes::of(['a' => true, 'b' => true])->isSplit());
        $dice = new Lcg(77);
        for ($round = 0; $round < 200; ++$round) {
            $values = [];
            foreach (self::PLACES as $place) {
                $values[$place] = $dice->whole(1, 4);
            }
            $found = OddOnes::of($values);
            self::assertSame(null === $found->common, $found->isSplit());
            foreach ($found->groups as $i => $group) {
                self::assertCount(1, array_unique(array_map(static fn (string $p): int => $values[$p], $group)));
                self::assertLessThanOrEqual(\count($found->groups[max(0, $i - 1)]), \count($group));
            }
            if ($found->isSplit()) {
                self::assertEqualsCanonicalizing(self::PLACES, array_merge(...$found->groups));
            }
        }
    }

    public function testWhoStandsWhereMakesNoDifference(): void
    {
        $dice = new Lcg(41);
        for ($round = 0; $round < 300; ++$round) {
            $values = [];
            foreach (self::PLACES as $place) {
                $values[$place] = $dice->whole(1, 3);
            }
            $found = OddOnes::of($values);
            $turned = OddOnes::of(array_reverse($values, true));
            self::assertSame($found->common, $turned->common);
            self::assertEqualsCanonicalizing($found->odd, $turned->odd);
            foreach ($values as $place => $value) {
                if (null !== $found->common) {
                    self::assertSame($value !== $found->common, \in_array($place, $found->odd, true));
                }
            }
        }
    }

    /** @return array<int, string> */
    private static function shuffled(Lcg $dice): array
    {
        $places = self::PLACES;
        for ($i = 3; $i > 0; --$i) {
            $j = $dice->whole(0, $i);
            [$places[$i], $places[$j]] = [$places[$j], $places[$i]];
        }

        return array_combine([1, 2, 3, 4], $places);
    }

    /**
     * @param array<int, string> $pads
     *
     * @return array<string, string>
     */
    private static function mapped(array $pads): array
    {
        $map = [];
        foreach ($pads as $pad => $place) {
            $map["pad.$pad.drives"] = $place;
        }

        return $map;
    }
}
