<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Incident\Incidents;
use Ortholex\Core\Incident\Saying\Contradiction;
use Ortholex\Core\Incident\Saying\Evidence;
use Ortholex\Core\Incident\Saying\Kind;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Report\KnownFlight;
use Ortholex\Tests\core\Truth\TruthCraft;
use Ortholex\Tests\core\Truth\TruthFault;
use Ortholex\Tests\core\Truth\TruthFlight;
use Ortholex\Tests\core\Truth\TruthMoves;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Motors that fail are named, sound ones are not, and other causes get names of their own. More seeds: `bin/bench truth`. */
final class IncidentsTest extends TestCase
{
    #[DataProvider('sound')]
    public function testASoundMotorIsNeverAccused(TruthCraft $craft, TruthMoves $moves, TruthFault $fault): void
    {
        foreach ([false, true] as $withRpm) {
            $log = (new TruthFlight($craft, 69))->fly($moves, 20.0, $fault, atS: 4.0, withRpm: $withRpm);
            $found = Incidents::of($log);
            self::assertSame([], array_filter(array_column($found, 'place')), $withRpm ? 'with rpm' : 'without rpm');
            if (TruthFault::None === $fault) {
                self::assertNotContains(Kind::SensorGlitch, array_column($found, 'kind'), 'nor is its gyro');
            }
        }
    }

    /** Two flights of `bin/bench truth` whose sound motors were accused while all wash was taken for alike. */
    public function testWashAndKnocksInItAccuseNobody(): void
    {
        $knocked = (new TruthFlight(TruthCraft::long(), 709))->fly(TruthMoves::Hard, 30.0, TruthFault::Collision, atS: 5.0);
        self::assertSame([], self::accused($knocked));
        self::assertSame([], self::accused((new TruthFlight(TruthCraft::heavy(), 707))->fly(TruthMoves::Chops, 30.0)));
    }

    public function testAShortCutOfASoundFlightAccusesNobody(): void
    {
        foreach ([TruthCraft::light(), TruthCraft::hexa()] as $craft) {
            $log = (new TruthFlight($craft, 77))->fly(TruthMoves::Hard, 12.0, withRpm: true);
            foreach ([1.0, 2.0, 4.0] as $lasts) {
                for ($from = 0.0; $from + $lasts < 12.0; $from += 2.5) {
                    self::assertSame([], self::accused($log->between($from, $from + $lasts)), "$craft->name, $lasts s from $from s");
                }
            }
        }
    }

    /** @return iterable<string, array{TruthCraft, TruthMoves, TruthFault}> */
    public static function sound(): iterable
    {
        foreach (TruthCraft::five() as $n => $craft) {
            foreach ([TruthMoves::Hard, TruthMoves::Reversals, TruthMoves::Punches] as $m => $moves) {
                if (!Cases::takes($n + $m, 3)) {
                    continue;
                }
                yield "$craft->name, $moves->value" => [$craft, $moves, TruthFault::None];
            }
        }
        yield 'light, hit' => [TruthCraft::light(), TruthMoves::Cruise, TruthFault::Collision];
        yield 'heavy, hit in hard flying' => [TruthCraft::heavy(), TruthMoves::Hard, TruthFault::Collision];
        yield 'slow, glitches' => [TruthCraft::slow(), TruthMoves::Cruise, TruthFault::Glitch];
    }

    #[Group('slow')]
    #[DataProvider('failing')]
    public function testAMotorThatFailsIsNamed(TruthCraft $craft, TruthMoves $moves, TruthFault $fault, float $lastsS, bool $withRpm): void
    {
        foreach (\array_slice(array_keys($craft->motors), 0, 2) as $k => $place) {
            $log = (new TruthFlight($craft, 40 + $k))->fly($moves, 22.0, $fault, $place, 13.0, $lastsS, $withRpm);
            $accused = self::accused($log);
            self::assertSame($place, $accused[0]->place ?? null, $place);
            self::assertEqualsWithDelta(13.0, $accused[0]->atS, TruthFault::MotorStops === $fault ? 0.1 : 0.3);
        }
    }

    /** @return iterable<string, array{TruthCraft, TruthMoves, TruthFault, float, bool}> */
    public static function failing(): iterable
    {
        foreach (TruthCraft::five() as $craft) {
            yield "$craft->name, a fifth of a second, by its speed" => [$craft, TruthMoves::Hard, TruthFault::MotorStops, 0.2, true];
            yield "$craft->name, half a second, by motion" => [$craft, TruthMoves::Cruise, TruthFault::MotorStops, 0.5, false];
            yield "$craft->name, half of it for 2 s, by its speed" => [$craft, TruthMoves::Cruise, TruthFault::MotorHalf, 2.0, true];
        }
    }

    /**
     * Without speeds, in hard flying: what was set aside as signs had taught the craft most, and without it these are not seen; a slow
     * rotor that stops goes on losing, which a knock does not.
     */
    #[Group('slow')]
    public function testALossInHardFlyingIsSeenByMotion(): void
    {
        foreach (
            [
                [TruthCraft::heavy(), 904, TruthMoves::Hard, 'front_right', 13.48],
                [TruthCraft::hexa(), 901, TruthMoves::Hard, 'right', 12.37],
                [TruthCraft::hexa(), 902, TruthMoves::Cruise, 'rear_right', 12.74],
            ] as [$craft, $seed, $moves, $place, $at]
        ) {
            $accused = self::accused((new TruthFlight($craft, $seed))->fly($moves, 25.0, TruthFault::PropHalf, $place, $at, 2.0));
            self::assertSame([$place], array_column($accused, 'place'), "$craft->name, half a prop");
            self::assertEqualsWithDelta($at, $accused[0]->atS, 0.3);
        }
    }

    public function testOtherCausesHaveNamesOfTheirOwn(): void
    {
        foreach ([[TruthFault::Collision, Kind::Hit], [TruthFault::Glitch, Kind::SensorGlitch]] as [$fault, $kind]) {
            $found = Incidents::of((new TruthFlight(TruthCraft::light(), 38))->fly(TruthMoves::Cruise, 30.0, $fault, atS: 5.0));
            $kinds = array_map(static fn (Incident $i): Kind => $i->kind, $found);
            self::assertGreaterThanOrEqual(3, \count(array_filter($kinds, static fn (Kind $k): bool => $k === $kind)), $kind->value);
        }
    }

    /** The picture by which a person can believe it: speed as logged, and what the output usually gives. */
    public function testTheSpeedOfTheMotorNamedIsToldBesideTheUsual(): void
    {
        $fly = static fn (TruthFault $fault): array => self::accused(
            (new TruthFlight(TruthCraft::light(), 41))->fly(TruthMoves::Cruise, 20.0, $fault, 'rear_left', 12.0, 2.0, true),
        );
        $stopped = $fly(TruthFault::MotorStops)[0];
        self::assertSame(Evidence::RpmFell, $stopped->evidence);
        self::assertNotNull($stopped->speed);
        $at = static fn (float $s): int => (int) round(($s - $stopped->speed->fromS) / $stopped->speed->stepS);
        self::assertEqualsWithDelta(1.0, $stopped->speed->rpm[$at(11.8)] / $stopped->speed->usual[$at(11.8)], 0.1, 'sound before');
        self::assertLessThan(0.4, $stopped->speed->rpm[$at(12.2)] / $stopped->speed->usual[$at(12.2)], 'gone after');
        self::assertEquals($stopped->rounded(), Incident::fromArray(Stored::of($stopped->rounded()->toArray())));

        $prop = $fly(TruthFault::PropHalf)[0];
        self::assertSame(Kind::MotorWeak, $prop->kind);
        self::assertSame(Evidence::UnexplainedRotation, $prop->evidence);
        self::assertSame(Contradiction::SpeedAsUsual, $prop->against[0]->code, 'its speed acquits the motor: the prop');
    }

    public function testWithoutSticksAMotorIsStillFound(): void
    {
        $flight = new TruthFlight(TruthCraft::heavy(), 12);
        $log = $flight->fly(TruthMoves::Hard, 20.0, TruthFault::MotorStops, 'front_left', 12.0, 0.6, true);
        $traces = [];
        foreach ($log->names() as $name) {
            if (!str_starts_with($name, 'setpoint')) {
                $traces[$name] = $log->trace($name);
            }
        }
        $accused = self::accused(KnownFlight::of($traces, 1000));
        self::assertSame('front_left', $accused[0]->place ?? null);
    }

    /** @return list<Incident> */
    private static function accused(FlightLog $log): array
    {
        return array_values(array_filter(Incidents::of($log), static fn (Incident $i): bool => null !== $i->place));
    }
}
