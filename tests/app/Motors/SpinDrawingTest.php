<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Motors;

use Ortholex\App\Book\Craft;
use Ortholex\App\Motors\ShownSpin;
use Ortholex\App\Motors\SignalView;
use Ortholex\App\Motors\SpinDrawing;
use Ortholex\App\Motors\SpinPad;
use Ortholex\App\Motors\SpinView;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\SpinAnswer;
use Ortholex\Core\Airframe\SpinCheck;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The map in the making, and the control period, as they are drawn. */
final class SpinDrawingTest extends TestCase
{
    /** @return iterable<string, array{Airframe}> */
    public static function frames(): iterable
    {
        yield 'quad' => [Airframe::quadX(0.216)];
        yield 'hexa' => [Airframe::hexaX(0.275)];
    }

    #[DataProvider('frames')]
    public function testEveryWireRunsFromItsPadToTheRimOfItsMotor(Airframe $frame): void
    {
        $places = $frame->places();
        // Each output is said to turn the motor two places on.
        $said = [];
        foreach ($places as $i => $place) {
            $said[$i + 1] = [$places[($i + 2) % \count($places)], 1];
        }
        $view = self::view($frame, $said);
        $d = $view->drawing();
        self::assertCount(\count($places), $d->pads);
        $at = [];
        foreach ($d->motors as $m) {
            $at[$m->place] = [$m->x, $m->y];
        }
        foreach ($d->pads as $pad) {
            self::assertSame($said[$pad->pad][0], $pad->place);
            self::assertFalse($pad->crossed);
            [$from, $to] = self::ends($pad);
            self::assertEqualsWithDelta([$pad->x, $pad->y], $from, 0.06);
            [$x, $y] = $at[$pad->place];
            self::assertEqualsWithDelta(SpinDrawing::MOTOR, hypot($to[0] - $x, $to[1] - $y), 0.1, 'it ends at the rim');
            self::assertLessThan(hypot($pad->x - $x, $pad->y - $y), hypot($to[0] - $pad->x, $to[1] - $pad->y), 'on the near side');
            self::assertLessThanOrEqual($d->halfHeight - 10, abs($pad->y), 'the pad lies on the board');
        }
        // The pads stand apart, the first half at the left edge.
        foreach ($d->pads as $i => $a) {
            self::assertSame($i < \count($places) / 2 ? -1 : 1, $a->side);
            foreach (\array_slice($d->pads, $i + 1) as $b) {
                self::assertGreaterThanOrEqual(24, hypot($a->x - $b->x, $a->y - $b->y));
            }
        }
    }

    public function testPlacesAreMetGoingRoundClockwiseFromTheNose(): void
    {
        $view = self::view(Airframe::quadX(0.2), []);
        self::assertSame(['front_right', 'rear_right', 'rear_left', 'front_left'], $view->drawing()->round);
        $hexa = self::view(Airframe::hexaX(0.2), [])->drawing();
        self::assertSame(['front_right', 'right', 'rear_right', 'rear_left', 'left', 'front_left'], $hexa->round);
        self::assertSame('', $hexa->pads[0]->wire, 'what was not shown has no wire');
    }

    public function testTwoWiresToOneMotorCrossOut(): void
    {
        $view = self::view(Airframe::quadX(0.2), [1 => ['rear_left', 1], 2 => ['rear_left', 0], 3 => ['front_left', -1]]);
        $crossed = array_column(array_map(static fn (SpinPad $p): array => [$p->pad, $p->crossed], $view->drawing()->pads), 1, 0);
        self::assertSame([1 => true, 2 => true, 3 => false, 4 => false], $crossed);
        self::assertSame(2, $view->whole(), 'one has no direction yet');
        self::assertSame('rear_left', $view->turning());
        self::assertSame(4, $view->next());
        self::assertSame(1, $view->direction('rear_left'), 'the first wire speaks for the motor');
        self::assertSame(0, $view->direction('rear_right'));
    }

    public function testTheArcTurnsTheWayItSays(): void
    {
        $d = self::view(Airframe::quadX(0.2), [])->drawing();
        foreach ([1, -1] as $way) {
            self::assertSame(1, preg_match('~^M(\S+) (\S+)A34 34 0 1 (\d) (\S+) (\S+)$~', $d->arc($way), $m));
            [, $x1, $y1, $sweep, $x2, $y2] = array_map(floatval(...), $m);
            self::assertSame($way > 0 ? 1.0 : 0.0, $sweep, 'a sweep of 1 is clockwise on a page');
            foreach ([[$x1, $y1], [$x2, $y2]] as [$x, $y]) {
                self::assertEqualsWithDelta(SpinDrawing::ARC, hypot($x, $y), 0.1);
            }
            self::assertSame([$x2, $y2], $d->arcEnd($way));
            // From its middle, at the nose, it goes to the right when it turns clockwise.
            self::assertGreaterThan(0, $way * $x2);
            self::assertEqualsWithDelta(-$x1, $x2, 1e-9);
            // The head points on along the circle there.
            $deg = deg2rad($d->headDeg($way));
            $along = [-$way * $y2 / SpinDrawing::ARC, $way * $x2 / SpinDrawing::ARC];
            self::assertEqualsWithDelta($along, [cos($deg), sin($deg)], 0.01);
        }
    }

    public function testThePeriodIsDrawnToScale(): void
    {
        $set = Catalogue::loam()->defaults(Version::parse('26.06'));
        foreach ([['dshot300', true, 4000.0], ['dshot600', false, 2000.0], ['pwm', false, 1000.0]] as [$signal, $answered, $hz]) {
            $timing = SignalTiming::of(MotorSignal::from($signal), $answered);
            $view = new SignalView($timing, $hz, 40.0, [], $set, SettingSet::none());
            $us = 98 / max(1e6 / $hz, $timing->frameUs);
            self::assertEqualsWithDelta($timing->signalUs * $us, $view->signalEnd(), 0.01);
            self::assertEqualsWithDelta(($timing->signalUs + $timing->turnRoundUs) * $us, $view->answerFrom(), 0.01);
            self::assertEqualsWithDelta($timing->frameUs * $us, $view->answerEnd(), 0.01);
            self::assertEqualsWithDelta((1e6 / $hz) * $us, $view->periodEnd(), 0.01);
            self::assertEqualsWithDelta(0.4 * $view->periodEnd(), $view->loadEnd(), 0.01);
            self::assertLessThanOrEqual(98.0, max($view->answerEnd(), $view->periodEnd()), 'all of it is on the page');
            self::assertSame($timing->fits($hz), $view->fits());
        }
        self::assertSame(0.0, (new SignalView(null, 1000.0, 0.0, [], $set, SettingSet::none()))->answerEnd());
    }

    public function testEachSettingStandsOnItsSideOfTheTimeLine(): void
    {
        $fields = [];
        foreach (['motors.protocol', 'motors.rpm_feedback', 'motors.loop_rate_hz', 'motors.idle_pct', 'motors.still_when_armed'] as $name) {
            $fields[] = Catalogue::loam()->get($name, Version::parse('26.06'));
        }
        $set = SettingSet::none();
        $view = new SignalView(null, 2000.0, 99.0, $fields, $set, $set);
        self::assertSame(\array_slice($fields, 0, 3), $view->above());
        self::assertSame(\array_slice($fields, 3), $view->below());
        self::assertTrue($view->overloaded());
    }

    /** @param array<int, array{string, int}> $said by pad: place, direction */
    private static function view(Airframe $frame, array $said): SpinView
    {
        $craft = new Craft('curlew', 'Curlew', '5-inch', '', '', []);
        $shown = $answers = $set = [];
        foreach ($frame->places() as $i => $place) {
            $set[$i + 1] = $place;
        }
        foreach ($said as $pad => [$place, $direction]) {
            $shown[$pad] = new ShownSpin($craft, $pad);
            $shown[$pad]->place = $place;
            $shown[$pad]->direction = $direction;
            $answers[] = new SpinAnswer($pad, $place, $direction);
        }

        return new SpinView($frame, $shown, $set, SpinCheck::of($frame, array_keys($set), $answers), false, [], $set);
    }

    /** @return array{array{float, float}, array{float, float}} */
    private static function ends(SpinPad $pad): array
    {
        preg_match_all('~-?[\d.]+~', $pad->wire, $m);
        $n = array_map(floatval(...), $m[0]);
        self::assertCount(8, $n);

        return [[$n[0], $n[1]], [$n[6], $n[7]]];
    }
}
