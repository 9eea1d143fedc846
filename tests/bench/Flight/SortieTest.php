<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Flight;

use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\Itinerary;
use Ortholex\Bench\Flight\Pilot\SwitchOff;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Bench\Flight\Sortie;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Bench\Flight\Track;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Manner;
use Ortholex\Core\LinkLoss\SinkSpeed;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Demo\Scenario;
use Ortholex\Tests\Cases;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Flights in the world, from the ground to the ground: modes, the arming machine, and what becomes of a craft that nobody speaks to. */
final class SortieTest extends TestCase
{
    private const ARMS = ['action.arm.on_in' => '5:1750-', 'action.angle.on_in' => '6:-1250'];

    private Track $track;
    private FlightLog $log;

    public function testTheMaidenFlightLiftsMovesAndLands(): void
    {
        $end = $this->fly(
            'curlew',
            [],
            static fn (Road $road, Track $track): Sortie => new Sortie(Itinerary::maiden(), $road, track: $track),
        );
        self::assertSame(FlightEnd::Flown, $end);
        self::assertLessThan(46.0, $this->log->clock->durationS(), 'it ends when the craft stands and its motors rest');
        self::assertLessThan(1.5, $this->track->impactMs);
        $north = array_column($this->track->points, 1);
        $height = array_column($this->track->points, 3);
        self::assertEqualsWithDelta(1.9, max($north), 0.5);
        self::assertEqualsWithDelta(-1.1, min($north), 0.5);
        self::assertEqualsWithDelta(2.2, max($height), 0.6);
        self::assertSame(
            0.0,
            max(array_map(abs(...), \array_slice($this->log->trace('output_front_left_pct'), 0, 1000))),
            'nothing before it is armed',
        );
    }

    /** Every craft of the scenario can be flown by eyes and thumbs, in a breeze. */
    public function testEachCraftHasItsMaiden(): void
    {
        foreach (['dunlin', 'curlew', 'bittern'] as $name) {
            $breeze = static fn (Road $road, Track $track): Sortie => new Sortie(
                Itinerary::maiden(),
                $road,
                wind: new Wind(2.0, 120.0, 0.5, 9),
                track: $track,
            );
            self::assertSame(FlightEnd::Flown, $this->fly($name, [], $breeze), $name);
            $heights = array_column($this->track->points, 3);
            self::assertLessThan(8.0, max($heights), $name);
            self::assertLessThan(0.2, $heights[\count($heights) - 1], "$name stands again");
            self::assertLessThan(2.5, $this->track->impactMs, $name);
        }
    }

    public function testTheSameSeedGoesTheSameWay(): void
    {
        $out = static fn (Road $road, Track $track): Sortie => new Sortie(
            Itinerary::stay(20),
            $road,
            wind: new Wind(4.0, 60.0, 1.0, 3),
            fromHeightM: 20,
            track: $track,
        );
        $this->fly('curlew', [], $out, 4);
        [$path, $packed] = [$this->track->points, $this->log->packed()];
        $this->fly('curlew', [], $out, 4);
        self::assertSame($path, $this->track->points);
        self::assertSame($packed, $this->log->packed());
        self::assertLessThan(3.0, abs($path[\count($path) - 1][1]), 'and its pilot keeps it in the wind');
    }

    /** In the open a quad that loses a motor is not to be held: it falls, and the log ends where it hits. */
    public function testAQuadFallsAfterALostMotorAndTheLogEndsThere(): void
    {
        $stay = static fn (Road $road, Track $track): Sortie => new Sortie(Itinerary::stay(15), $road, fromHeightM: 15, track: $track);
        $end = $this->fly('curlew', [], $stay, 20, ['lost_sync']);
        self::assertSame(FlightEnd::Crashed, $end);
        $fall = $this->log->clock->durationS() - 0.62 * 20;
        // Free fall would take 1.75 s in vacuum; what is left of its thrust makes it later, not never.
        self::assertGreaterThan(1.2, $fall);
        self::assertLessThan(5.0, $fall);
        self::assertLessThan(1.0, $this->track->points[\count($this->track->points) - 1][3]);
        self::assertGreaterThan(4.0, $this->track->impactMs);
    }

    /** The four levers: held height in wind, horizon and angle level, acro does not. */
    public function testAltitudeHoldKeepsItsHeight(): void
    {
        $levers = ['action.altitude_hold.on_in' => '5:1750-'];
        $stay = static fn (Road $road, Track $track): Sortie => new Sortie(
            Itinerary::stay(10),
            $road,
            wind: new Wind(5.0, 10.0, 1.2, 4),
            fromHeightM: 10,
            wanted: [Action::Angle, Action::AltitudeHold],
            track: $track,
        );
        $this->fly('curlew', $levers, $stay, 20);
        $held = \array_slice(array_column($this->track->points, 3), 100);
        self::assertLessThan(1.5, max($held) - min($held));
    }

    /** @return iterable<string, array{Manner, string}> */
    public static function losses(): iterable
    {
        foreach (Manner::cases() as $manner) {
            foreach (['cut', 'descend', 'return'] as $then) {
                yield "$manner->value, $then" => [$manner, $then];
            }
        }
    }

    #[DataProvider('losses')]
    public function testALossIsFlownAsTheReceiverAndThePlanHaveIt(Manner $manner, string $then): void
    {
        $set = [
            'link_loss.then' => $then,
            'link_loss.hold_s' => 0.6,
            'link_loss.descend_throttle_pct' => 30.0,
            'link_loss.descend_s' => 6.0,
        ];
        $end = $this->fly('curlew', $set, static fn (Road $road, Track $track): Sortie => new Sortie(
            Itinerary::stay(12),
            $road,
            SwitchOff::at(1.0),
            fromHeightM: 12,
            track: $track,
        ), 9, radio: static function (RadioState $radio) use ($manner): void {
            $radio->manner = $manner;
        });
        $stages = array_values(array_unique(array_column($this->track->points, 5)));
        if (\in_array($manner, [Manner::Repeats, Manner::Presets], true)) {
            self::assertSame(-1.0, $this->track->noticedS, 'frames come: the board has nothing to notice');
            self::assertSame([Stage::Heard->value], $stages);
            // Repeated, the last command flies on; presets put the lever of arming down, and it falls.
            self::assertSame(Manner::Repeats === $manner ? FlightEnd::Flown : FlightEnd::Crashed, $end);

            return;
        }
        self::assertEqualsWithDelta(1.0 + LossPlan::NOTICE_S, $this->track->noticedS, 1 / 150 + 0.05);
        $plan = match ($then) {
            'cut' => [Stage::Heard, Stage::Hold, Stage::Cut],
            'descend' => [Stage::Heard, Stage::Hold, Stage::Descend, Stage::Cut],
            default => [Stage::Heard, Stage::Hold, Stage::Return, Stage::Cut],
        };
        self::assertSame(array_map(static fn (Stage $s): string => $s->value, $plan), $stages);
        if ('cut' === $then) {
            self::assertSame(FlightEnd::Crashed, $end);
            // From 12 m without motors: v_t·sqrt(1 − exp(−2gh/v_t²)).
            self::assertEqualsWithDelta(20 * sqrt(1 - exp((-2 * 9.81 * 12) / 400)), $this->track->impactMs, 0.7);
        }
    }

    /** A throttle below what was agreed means lost, whoever sends it: the cure where a receiver can only send presets. */
    public function testPresetsBelowTheThresholdAreNoticed(): void
    {
        $set = ['link_loss.then' => 'descend', 'link_loss.throttle_below_us' => 960.0];
        $this->fly('curlew', $set, static fn (Road $road, Track $track): Sortie => new Sortie(
            Itinerary::stay(20),
            $road,
            SwitchOff::at(1.0),
            fromHeightM: 20,
            track: $track,
        ), 4, radio: static function (RadioState $radio): void {
            $radio->manner = Manner::Presets;
            $radio->presetThrottle = 940.0;
        });
        self::assertEqualsWithDelta(1.0 + LossPlan::NOTICE_S, $this->track->noticedS, 1 / 150 + 0.05);
        self::assertContains(Stage::Descend->value, array_column($this->track->points, 5));
    }

    /** What the formula says of sinking, over thirty craft, voltages and throttles, against the whole simulator. */
    #[Group('slow')]
    public function testSinkSpeedIsWhatTheSimulatorFlies(): void
    {
        $worst = 0.0;
        $cases = $number = 0;
        foreach (['dunlin', 'curlew'] as $name) {
            $this->fly($name, [], static fn (Road $road, Track $track): Sortie => new Sortie(
                Itinerary::stay(20),
                $road,
                fromHeightM: 20,
                chargeUsed: 0.2,
                track: $track,
            ), 20);
            $physics = Scenario::craft()[$name]->physics;
            [$hover, $hoverV] = [$this->mean('output'), $this->mean('battery_v') / $physics->dividerFault];
            $law = SinkSpeed::of($hover, $hoverV, $physics->terminalMs);
            foreach ([0.05, 0.3, 0.55] as $used) {
                foreach ([0.5, 0.65, 0.8, 0.9, 0.94] as $share) {
                    if (!Cases::takes($number++, 3)) {
                        continue;
                    }
                    $idle = $this->settings($name, [])->number('motors.idle_pct', 5);
                    $output = $hover * $share;
                    $throttle = round((100 * ($output - $idle)) / (100 - $idle), 1);
                    $output = $idle + ($throttle * (100 - $idle)) / 100;
                    $this->fly($name, [
                        'link_loss.then' => 'descend',
                        'link_loss.hold_s' => 0.2,
                        'link_loss.descend_throttle_pct' => $throttle,
                        'link_loss.descend_s' => 60.0,
                    ], static fn (Road $road, Track $track): Sortie => new Sortie(
                        Itinerary::stay(300),
                        $road,
                        SwitchOff::at(0.2),
                        fromHeightM: 300,
                        chargeUsed: $used,
                        track: $track,
                    ), 16);
                    $sinks = $this->track->points[\count($this->track->points) - 1][4];
                    $says = 0.0;
                    foreach ($this->log->trace('battery_v') as $i => $reported) {
                        // From when the hold is over, on the voltage that there was.
                        $says += $i < 800 ? 0.0 : $law->acceleration($says, $output, $reported / $physics->dividerFault) / 2000;
                    }
                    $worst = max($worst, abs($sinks - $says) / max(1.0, abs($says)));
                    ++$cases;
                }
            }
        }
        self::assertSame(Cases::many(30, 10), $cases);
        self::assertLessThan(0.10, $worst);
    }

    /** Over the last ten seconds: of all outputs, or of one trace. */
    private function mean(string $what): float
    {
        $names = 'output' === $what ? array_map(static fn (string $p): string => "output_{$p}_pct", $this->log->places()) : [$what];
        $sum = 0.0;
        foreach ($names as $name) {
            $sum += Statistics::mean(\array_slice($this->log->trace($name), -20_000)) / \count($names);
        }

        return $sum;
    }

    /** Upside down and armed with self-righting on, a stick held to one side rolls it over onto its legs. */
    public function testItGetsUpFromItsBack(): void
    {
        $levers = ['action.self_right.on_in' => '8:1500-'];
        $out = static fn (Road $road, Track $track): Sortie => new Sortie(
            Itinerary::rolledOver(),
            $road,
            wanted: [Action::SelfRight],
            overturned: true,
            track: $track,
        );
        $this->fly('curlew', $levers, $out, 8);
        $up = \array_slice($this->log->trace('accel_z_g'), -200);
        self::assertEqualsWithDelta(-1.0, Statistics::mean($up), 0.1, 'it stands on its legs again');
        self::assertEqualsWithDelta(
            1.0,
            Statistics::mean(\array_slice($this->log->trace('accel_z_g'), 0, 200)),
            0.1,
            'and lay on its back',
        );
        $this->fly('curlew', [], $out, 4);
        self::assertEqualsWithDelta(
            1.0,
            Statistics::mean(\array_slice($this->log->trace('accel_z_g'), -200)),
            0.1,
            'without the action it lies',
        );
        self::assertSame(0.0, max($this->log->trace('output_front_left_pct')), 'and is not armed: tilted');
    }

    /** @return iterable<string, array{float, float}> */
    public static function stops(): iterable
    {
        // Its pilot arms it 0.8 s after power came.
        yield 'standing still' => [2.0, 2.8];
        yield 'never' => [0.0, 12.0];
    }

    #[DataProvider('stops')]
    public function testItStopsByItself(float $stillS, float $atS): void
    {
        $this->fly('curlew', ['disarm.still_s' => $stillS], static fn (Road $road, Track $track): Sortie => new Sortie(
            Itinerary::waits(),
            $road,
            track: $track,
        ), 12);
        $turning = array_filter($this->log->trace('output_front_left_pct'), static fn (float $pct): bool => $pct > 0);
        self::assertNotEmpty($turning);
        self::assertEqualsWithDelta($atS, array_key_last($turning) / 2000, 0.1);
    }

    /** Outputs in the wrong order tip the craft over on the ground: the board stops before it gets far. */
    public function testAnUnaskedTurnOnTheGroundStopsTheMotors(): void
    {
        $go = static fn (Road $road, Track $track): Sortie => new Sortie(Itinerary::maiden(), $road, track: $track);
        $turned = function (float $afterS) use ($go): float {
            $this->fly(
                'curlew',
                ['disarm.unasked_turn_s' => $afterS, 'pad.1.drives' => 'front_right', 'pad.2.drives' => 'rear_right'],
                $go,
                8,
            );

            return max(
                array_map(abs(...), [...$this->log->trace('rate_measured_roll_dps'), ...$this->log->trace('rate_measured_pitch_dps')]),
            );
        };
        $stopped = $turned(0.1);
        self::assertLessThan($turned(0.0), $stopped);
    }

    /**
     * @param array<string, float|int|bool|string>  $changed
     * @param \Closure(Road, Track): Sortie         $sortie
     * @param list<string>                          $faults
     * @param (\Closure(RadioState): void)|null     $radio
     */
    private function fly(
        string $craft,
        array $changed,
        \Closure $sortie,
        float $seconds = 60,
        array $faults = [],
        ?\Closure $radio = null,
    ): FlightEnd {
        $set = $this->settings($craft, $changed);
        $state = new RadioState();
        null === $radio ? null : $radio($state);
        $this->track = new Track();
        $path = (string) tempnam(sys_get_temp_dir(), 'fly');
        $stream = fopen($path, 'w');
        self::assertIsResource($stream);
        $end = (new FlightSimulator(Scenario::craft()[$craft]->physics))->goOut(
            $sortie(Road::of($state, Rill::C, $set), $this->track),
            $set,
            $seconds,
            1,
            $faults,
            new CsvRecorder($stream),
            static fn (float $share): bool => true,
        );
        fclose($stream);
        $this->log = LogReader::readFile($path);
        unlink($path);

        return $end;
    }

    /** @param array<string, float|int|bool|string> $changed */
    private function settings(string $craft, array $changed): SettingSet
    {
        $demo = Scenario::craft()[$craft];
        $straight = ['mounting.yaw_deg' => $demo->physics->mountedDeg[2], 'motors.loop_rate_hz' => '2000'];
        foreach ($demo->physics->wiredPads as $pad => $place) {
            $straight["pad.$pad.drives"] = $place;
        }

        return Catalogue::loam()
            ->defaults(Version::parse(Catalogue::CURRENT))
            ->with($demo->settings)
            ->with(self::ARMS + ['action.horizon.on_in' => ''])
            ->with($straight)
            ->with($changed);
    }
}
