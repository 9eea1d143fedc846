<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Pack;

use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Pilot\Itinerary;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Bench\Flight\Sortie;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\LinkLoss\HoverOutput;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Pack\Discharge;
use Ortholex\Core\Pack\Divider;
use Ortholex\Core\Pack\PackFit;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Demo\Scenario;
use Ortholex\Tests\Cases;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** What logs of the simulator tell of a craft, held against what the simulator was made of. */
#[Group('slow')]
final class LearnedFromFlightsTest extends TestCase
{
    /** Hover output within 2 % of a flight that does nothing but hover, brought to the same voltage. */
    public function testHoverOutputFromFlightsThatDoMuchElse(): void
    {
        foreach (['dunlin', 'curlew'] as $name) {
            $still = $this->hovered($name);
            $true = Statistics::mean(
                \array_slice($still->trace('output_front_left_pct'), 20_000),
            ) * Statistics::mean(\array_slice($still->trace('battery_v'), 20_000));
            foreach ([Card::HoverAndClimb, Card::Cruise] as $n => $card) {
                $told = HoverOutput::of($this->flown($name, $card, 40, 3 + $n));
                self::assertEqualsWithDelta(1.0, ($told->hoverPct * $told->packV) / $true, 0.02, "$name, $card->name");
                self::assertGreaterThan(3, $told->windows);
            }
        }
    }

    /** Resistance within 5 %, its interval over it in most flights, at every age of the pack. */
    public function testResistanceOfThePack(): void
    {
        $covered = $cases = 0;
        foreach (['dunlin', 'curlew'] as $name) {
            foreach ([1.0, 1.5, 2.0] as $worn) {
                foreach (Cases::all() ? [11, 12] : [11] as $seed) {
                    $physics = Scenario::craft()[$name]->physics->withPack($worn);
                    $fit = PackFit::of($this->flown($name, Card::MixedSticks, 40, $seed, $worn), $physics->cells);
                    // What is reported is the truth times the divider's fault.
                    $true = ($physics->packOhm * $physics->dividerFault) / $physics->cells;
                    self::assertEqualsWithDelta(1.0, $fit->ohm / $true, 0.05, "$name, $worn, seed $seed");
                    $covered += $fit->low <= 1.01 * $true && $fit->high >= 0.99 * $true ? 1 : 0;
                    ++$cases;
                }
            }
        }
        self::assertGreaterThanOrEqual(0.75 * $cases, $covered);
    }

    /**
     * A scale that reads low alarms early: by so many seconds, within 10 % of two hovers to flight end, one by the old scale and one by
     * the new.
     */
    public function testSecondsThatAWrongScaleCosts(): void
    {
        $physics = Scenario::craft()['curlew']->physics;
        $level = 3.55;
        $whole = $this->hovered('curlew', 330, 0.5);
        $fit = PackFit::of($this->flown('curlew', Card::HoverAndClimb, 40, 3), $physics->cells);
        $pack = Discharge::of([$fit], [0.02 * $physics->packAh], $physics->packAh);
        self::assertNotNull($pack);
        foreach ([0.96, 0.98] as $fault) {
            $set = Divider::onePoint(11.0, 24.0, 24.0 * $fault);
            $true = $set->alarmedAt($level);
            $says = $pack->secondsBetween($true, $level);
            $at = fn (float $cellV): float => $this->reaches($whole, $cellV * $physics->cells);
            // At the currents of a hover both times; the usual current of the flights that the pack was learnt from is another.
            $current = Statistics::mean($whole->trace('current_a'));
            $flown = $at($level) - $at($true);
            $usual = Statistics::median($pack->amperes);
            self::assertEqualsWithDelta(
                $flown * $current / $usual,
                $says,
                0.10 * abs($flown * $current / $usual) + 0.5,
                "a scale off by $fault",
            );
        }
    }

    /** The first second from which the voltage stays below. */
    private function reaches(FlightLog $log, float $volts): float
    {
        $rate = $log->clock->rateHz;
        $means = array_map(static fn (array $s): float => Statistics::mean($s), array_chunk($log->trace('battery_v'), max(1, (int) $rate)));
        foreach ($means as $second => $mean) {
            if ($mean < $volts) {
                return (float) $second;
            }
        }
        self::fail("it never came down to $volts V");
    }

    private function hovered(string $name, float $seconds = 30, float $used = 0.05): FlightLog
    {
        $set = $this->settings($name)->with(['recorder.rate_hz' => $seconds > 60 ? '500' : '2000']);
        $sortie = new Sortie(Itinerary::stay(20), Road::of(new RadioState(), Rill::C, $set), fromHeightM: 20, chargeUsed: $used);

        return $this->log(static fn ($stream) => (new FlightSimulator(Scenario::craft()[$name]->physics))->goOut(
            $sortie,
            $set,
            $seconds,
            5,
            [],
            new CsvRecorder($stream),
            static fn (float $share): bool => true,
        ));
    }

    private function flown(string $name, Card $card, float $seconds, int $seed, float $worn = 1.0): FlightLog
    {
        $simulator = new FlightSimulator(Scenario::craft()[$name]->physics->withPack($worn));
        $flown = FlightCard::fly($card, $seconds, 150, $simulator->hoverThrottle(), $seed);
        $set = $this->settings($name);

        return $this->log(
            static fn ($stream) => $simulator->fly(
                $flown,
                $set,
                $seconds,
                $seed + 7,
                [],
                new CsvRecorder($stream),
                static fn (float $share): bool => true,
            ),
        );
    }

    /** @param \Closure(resource): mixed $fly */
    private function log(\Closure $fly): FlightLog
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'fly');
        $stream = fopen($path, 'w');
        self::assertIsResource($stream);
        $fly($stream);
        fclose($stream);
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }

    private function settings(string $name): SettingSet
    {
        $demo = Scenario::craft()[$name];
        $straight = [
            'mounting.yaw_deg' => $demo->physics->mountedDeg[2],
            'motors.loop_rate_hz' => '2000',
            'action.arm.on_in' => '5:1750-',
            'action.angle.on_in' => '6:-1250',
        ];
        foreach ($demo->physics->wiredPads as $pad => $place) {
            $straight["pad.$pad.drives"] = $place;
        }

        return Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with($demo->settings)->with($straight);
    }
}
