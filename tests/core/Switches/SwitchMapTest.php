<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Switches;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Radio\Span\StickHistory;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\Cell;
use Ortholex\Core\Switches\FoundSwitch;
use Ortholex\Core\Switches\MapCheck;
use Ortholex\Core\Switches\MapRemark;
use Ortholex\Core\Switches\OnIn;
use Ortholex\Core\Switches\SwitchCode;
use Ortholex\Core\Switches\SwitchMap;
use Ortholex\Core\Switches\Zone;
use Ortholex\Core\Switches\ZoneError;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Which action is on in which position, against a truth that is written here once more, from the text alone. */
final class SwitchMapTest extends TestCase
{
    public function testFiveHundredMapsAgreeWithTheTruthOnAThousandVectorsEach(): void
    {
        $on = $asked = 0;
        for ($seed = 1; $seed <= 500; ++$seed) {
            $dice = new Lcg(15_485_863 + 31 * $seed);
            $texts = [];
            foreach (Action::cases() as $action) {
                $texts[$action->value] = $this->text($dice);
            }
            $settings = [];
            foreach ($texts as $name => $text) {
                $settings["action.$name.on_in"] = OnIn::parse($text)->text();
            }
            $map = SwitchMap::of(SettingSet::of($settings), []);
            // Read once: channel, lower and upper edge, as the text has them.
            $truth = array_map(self::alternatives(...), $texts);
            for ($n = 0; $n < 1000; ++$n) {
                $us = [];
                for ($channel = 5; $channel <= 10; ++$channel) {
                    $us[$channel] = 0 === $dice->whole(0, 3)
                        ? [1250.0, 1750.0, 1500.0][$dice->whole(0, 2)]
                        : 800.0 + 0.5 * $dice->whole(0, 2800);
                }
                $expected = [];
                foreach ($truth as $name => $alternatives) {
                    if (self::holds($alternatives, $us)) {
                        $expected[] = $name;
                    }
                }
                $got = array_map(static fn (Action $a): string => $a->value, $map->on($us));
                if ($expected !== $got) {
                    self::fail("map $seed, vector $n: ".json_encode([$texts, $us, $expected, $got]));
                }
                $on += \count($got);
                ++$asked;
            }
        }
        self::assertSame(500_000, $asked);
        self::assertGreaterThan(100_000, $on);
    }

    /** A cell turned on is on there and nowhere else becomes so; turned off, the same. */
    public function testACellChangesItselfAlone(): void
    {
        $dice = new Lcg(99);
        for ($n = 0; $n < 400; ++$n) {
            $switches = [
                FoundSwitch::at(5, [1000.0, 1500.0, 2000.0]),
                FoundSwitch::at(6, [1012.0, 1991.0]),
                FoundSwitch::knob(7, $dice->whole(2, 5)),
            ];
            $map = SwitchMap::of(SettingSet::none(), $switches);
            $text = '';
            $held = [];
            for ($change = 0; $change < 12; ++$change) {
                $switch = $switches[$dice->whole(0, 2)];
                $position = $dice->whole(0, \count($switch->positions) - 1);
                $turn = 1 === $dice->whole(0, 1);
                $text = $map->with(Action::Angle, $switch->channel, $position, $turn)->text();
                $map = SwitchMap::of(SettingSet::of(['action.angle.on_in' => $text]), $switches);
                $held[$switch->channel][$position] = $turn;
                foreach ($switches as $one) {
                    foreach (array_keys($one->positions) as $p) {
                        [$cell] = $map->cell(Action::Angle, $one->channel, $p);
                        self::assertSame(($held[$one->channel][$p] ?? false) ? Cell::On : Cell::Off, $cell, "$text: $one->channel/$p");
                    }
                }
            }
        }
    }

    public function testACellTogetherWithAnotherLeverNeedsBoth(): void
    {
        $switches = [FoundSwitch::at(5, [1000.0, 2000.0]), FoundSwitch::at(6, [1000.0, 1500.0, 2000.0])];
        $map = SwitchMap::of(SettingSet::none(), $switches);
        $on = $map->with(Action::Arm, 5, 1, true, [$switches[1]->zone(0)]);
        self::assertSame('5:1500- with 6:-1250', $on->text());
        $map = SwitchMap::of(SettingSet::of(['action.arm.on_in' => $on->text()]), $switches);
        self::assertSame(Cell::Together, $map->cell(Action::Arm, 5, 1)[0]);
        self::assertTrue($on->holds([5 => 2000.0, 6 => 1000.0]));
        self::assertFalse($on->holds([5 => 2000.0, 6 => 1500.0]));
        self::assertFalse($on->holds([5 => 2000.0]), 'a channel that never spoke turns nothing on');
        self::assertTrue($map->with(Action::Arm, 5, 1, false)->isNever());
    }

    public function testPositionsAreFoundWithTheirJitterAndEdgesLieMidway(): void
    {
        $dice = new Lcg(6);
        for ($n = 0; $n < 60; ++$n) {
            $count = $dice->whole(2, 6);
            $middles = [];
            for ($i = 0, $at = 950 + $dice->whole(0, 60); $i < $count; ++$i, $at += $dice->whole(90, intdiv(1000, $count))) {
                $middles[] = (float) $at;
            }
            $us = $times = [];
            $order = [...array_keys($middles), 0, $count - 1, ...array_keys($middles)];
            foreach ($order as $position) {
                for ($k = 0, $frames = $dice->whole(22, 60); $k < $frames; ++$k) {
                    $us[] = round($middles[$position] + 1.2 * $dice->normal());
                    $times[] = \count($us) / 50;
                }
                // On the way it is between positions for a frame.
                $us[] = $middles[0] + 40;
                $times[] = \count($us) / 50;
            }
            $found = FoundSwitch::in(new StickHistory($times, [5 => $us]), 5);
            self::assertNotNull($found);
            self::assertCount($count, $found->positions);
            foreach ($middles as $i => $middle) {
                self::assertEqualsWithDelta($middle, $found->positions[$i], 1.5);
                self::assertSame($i, $found->position($middle));
                self::assertTrue($found->zone($i)->holds($middle));
            }
            self::assertLessThan(6.0, $found->jitterUs);
            self::assertNull($found->zone(0)->fromUs);
            self::assertNull($found->zone($count - 1)->toUs);
            foreach ($found->edges() as $i => $edge) {
                self::assertEqualsWithDelta(($found->positions[$i] + $found->positions[$i + 1]) / 2, $edge, 0.51);
            }
        }
        $times = array_map(static fn (int $i): float => 0.02 * $i, range(0, 99));
        self::assertNull(FoundSwitch::in(new StickHistory($times, [5 => array_fill(0, 100, 1500.0)]), 5));
    }

    /**
     * @param array<string, string|bool> $settings
     * @param list<SwitchCode>           $expected
     */
    #[DataProvider('maps')]
    public function testWhatIsToBeMindedIsSaid(array $settings, array $expected, bool $flown = true): void
    {
        $switches = [
            FoundSwitch::at(5, [1000.0, 1500.0, 2000.0], 2.0),
            FoundSwitch::at(6, [1000.0, 1500.0, 2000.0], 2.0),
            FoundSwitch::at(7, [1000.0, 2000.0], 2.0),
        ];
        $set = SettingSet::of($settings + ['motors.protocol' => 'dshot300']);
        $remarks = MapCheck::of(SwitchMap::of($set, $switches), $set, ['gyro', 'accelerometer'], $flown);
        $codes = array_map(static fn (MapRemark $r): string => (string) $r->what->code->value, $remarks);
        self::assertSame(array_map(static fn (SwitchCode $c): string => $c->value, $expected), $codes);
    }

    /** @return iterable<string, array{0: array<string, string|bool>, 1: list<SwitchCode>, 2?: bool}> */
    public static function maps(): iterable
    {
        $sound = ['action.arm.on_in' => '5:1750-', 'action.beeper.on_in' => '5:1250-1750, 7:1500-', 'action.angle.on_in' => '6:-1250'];
        yield 'a sound one' => [$sound, []];
        yield 'nothing' => [[], [SwitchCode::NoArm, SwitchCode::NoBeeper]];
        yield 'by stick' => [['arming.by' => 'stick'], [SwitchCode::NoBeeper]];
        yield 'armed at rest' => [['action.arm.on_in' => '5:-1250'] + $sound, [SwitchCode::ArmedAtRest]];
        yield 'one flick' => [['action.arm.on_in' => '7:1500-', 'action.beeper.on_in' => '5:1750-'] + $sound, [SwitchCode::ArmInOneFlick]];
        yield 'two levers to arm' => [['action.arm.on_in' => '5:1750- with 7:1500-'] + $sound, []];
        yield 'never reached' => [['action.horizon.on_in' => '6:1100-1300'] + $sound, [SwitchCode::NeverReached]];
        yield 'contradiction' => [['action.horizon.on_in' => '6:-1750'] + $sound, [SwitchCode::Contradict]];
        yield 'no compass' => [['action.position_hold.on_in' => '6:1750-'] + $sound, [SwitchCode::NeedUnmet]];
        yield 'edge near' => [['action.record.on_in' => '6:1496-'] + $sound, [SwitchCode::EdgeNear]];
        yield 'no such lever' => [['action.record.on_in' => '9:1500-'] + $sound, [SwitchCode::NoSuchSwitch]];
        yield 'on a stick' => [['action.record.on_in' => '3:1500-'] + $sound, [SwitchCode::OnStickChannel]];
        yield 'still when armed' => [['motors.still_when_armed' => true] + $sound, [SwitchCode::MotorsStill]];
        yield 'first flight' => [['action.angle.on_in' => ''] + $sound, [SwitchCode::NoLevelling], false];
        yield 'beeper only armed' => [
            ['action.beeper.on_in' => '5:1750-', 'action.arm.on_in' => '5:1750- with 7:1500-, 5:1750- with 7:-1500'] + $sound,
            [SwitchCode::ArmInOneFlick, SwitchCode::BeeperNeverDisarmed],
        ];
    }

    public function testZonesAreReadAsWritten(): void
    {
        self::assertSame('5:1750- with 6:-1300, 7:1200-1800', OnIn::parse(' 7 : 1200–1800 , 6:-1300 with 5:1750- ')->text());
        self::assertSame('', OnIn::parse(' , ')->text());
        foreach (['5', '5:a-b', '17:1000-2000', '5:1800-1200', '5:100-900', '5:1000-2000 and 6:1-2', '0:-'] as $bad) {
            try {
                OnIn::parse($bad);
                self::fail("“{$bad}” was read");
            } catch (ZoneError $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
        self::assertTrue(Zone::of(5, 1250.0, 1750.0)->holds(1250.0));
        self::assertFalse(Zone::of(5, 1250.0, 1750.0)->holds(1750.0), 'neighbours share no microsecond');
    }

    private function text(Lcg $dice): string
    {
        $alternatives = [];
        for ($i = 0, $n = $dice->whole(0, 3); $i < $n; ++$i) {
            $zones = [];
            for ($k = 0, $m = $dice->whole(1, 3); $k < $m; ++$k) {
                $from = $dice->whole(0, 3) > 0 ? $dice->whole(800, 2000) : null;
                $to = $dice->whole(0, 3) > 0 ? $dice->whole(($from ?? 800) + 1, 2200) : null;
                $zones[] = $dice->whole(5, 10).':'.($from ?? '').'-'.($to ?? '');
            }
            $alternatives[] = implode(' with ', $zones);
        }

        return implode(', ', $alternatives);
    }

    /** @return list<list<array{int, float, float}>> */
    private static function alternatives(string $text): array
    {
        $out = [];
        foreach ('' === $text ? [] : explode(', ', $text) as $one) {
            $zones = [];
            foreach (explode(' with ', $one) as $zone) {
                [$channel, $range] = explode(':', $zone);
                [$from, $to] = explode('-', $range);
                $zones[] = [(int) $channel, '' === $from ? -1e9 : (float) $from, '' === $to ? 1e9 : (float) $to];
            }
            $out[] = $zones;
        }

        return $out;
    }

    /**
     * @param list<list<array{int, float, float}>> $alternatives
     * @param array<int, float>                    $us
     */
    private static function holds(array $alternatives, array $us): bool
    {
        foreach ($alternatives as $zones) {
            $all = true;
            foreach ($zones as [$channel, $from, $to]) {
                $all = $all && $us[$channel] >= $from && $us[$channel] < $to;
            }
            if ($all) {
                return true;
            }
        }

        return false;
    }
}
