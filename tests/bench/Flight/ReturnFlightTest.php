<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Flight;

use Ortholex\Bench\Compass\Needle;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\Itinerary;
use Ortholex\Bench\Flight\Pilot\SwitchOff;
use Ortholex\Bench\Flight\Position\CompassHeading;
use Ortholex\Bench\Flight\Position\Positioning;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Bench\Flight\Sortie;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Bench\Flight\Track;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Homing\AirLaw;
use Ortholex\Core\Homing\HomeStage;
use Ortholex\Core\Homing\ReturnForecast;
use Ortholex\Core\Homing\ReturnPlan;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Core\World\FlownPath;
use Ortholex\Demo\Scenario;
use Ortholex\Tests\Cases;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** Returns and holds in the simulator: where they end, what they take, and what becomes of them without a fix. */
final class ReturnFlightTest extends TestCase
{
    private Track $track;

    /** As the craft of the demo has it. */
    private int $loopHz = 2000;

    /** Fifty from a seed: home within five metres and within a fifth of the charge that was said, or said not to come home. */
    #[Group('slow')]
    public function testFiftyReturnsComeHomeAsTheyWereForetold(): void
    {
        $even = new \Random\Randomizer(new \Random\Engine\Mt19937(15));
        $between = static fn (float $a, float $b): float => $a + ($b - $a) * $even->getInt(0, 10_000) / 10_000;
        $foretold = $not = 0;
        $returns = Cases::many(50, 14);
        for ($i = 0; $i < $returns; ++$i) {
            [$wind, $from, $distance, $bearing, $height] = [
                $between(0, 10),
                $between(0, 360),
                $between(20, 150),
                $between(0, 360),
                $between(8, 40),
            ];
            $set = $this->settings();
            $forecast = ReturnForecast::of(ReturnPlan::in($set), $this->air(), $distance, $height, $wind, $from - $bearing - 180);
            if (!$forecast->comesHome()) {
                ++$not;
                continue;
            }
            $end = $this->fly($set, new Wind($wind, $from, $wind / 4, $i + 5), $distance, $bearing, $height, new Positioning($i + 9));
            $says = \sprintf('%d: %.1f m/s from %.0f°, %.0f m at %.0f°, %.0f m high', $i, $wind, $from, $distance, $bearing, $height);
            self::assertSame(FlightEnd::Flown, $end, $says);
            $last = $this->track->points[\count($this->track->points) - 1];
            self::assertLessThan(5.0, hypot($last[1], $last[2]), $says);
            self::assertLessThan(FlownPath::BREAKS_MS, $this->track->impactMs, $says.': let down, not dropped');
            self::assertEqualsWithDelta(1.0, $this->track->usedAh / (float) $forecast->ah, 0.2, $says);
            ++$foretold;
        }
        self::assertGreaterThan(0.7 * $returns, $foretold, 'most winds are flown in');
        self::assertGreaterThan(0.04 * $returns, $not, 'and some are said to be too much');
    }

    public function testTheStagesComeInTheirOrder(): void
    {
        $this->fly($this->settings(), Wind::calm(), 60.0, 40.0, 12.0, new Positioning(3));
        $stages = array_values(array_unique(array_column($this->track->points, 5)));
        self::assertSame(['heard', 'hold', 'climb', 'turn', 'fly_back', 'come_down'], $stages);
        $highest = max(array_column($this->track->points, 3));
        self::assertEqualsWithDelta(30.0, $highest, 1.5, 'as high as it is set to');
    }

    /** Wherever coming down begins, it is not taken for standing: cut off at thirty metres, it would meet the ground at seventeen. */
    #[Group('slow')]
    #[TestWith([1000, 0.0])]
    #[TestWith([2000, 0.0])]
    #[TestWith([2000, 0.3])]
    #[TestWith([2000, 0.6])]
    public function testItIsLetDownAndNotDropped(int $loopHz, float $used): void
    {
        $this->loopHz = $loopHz;
        $against = new Wind(4.0, 180.0, 1.0, 5);
        foreach (['come back' => [100.0, []], 'land here' => [8.0, ['return.if_near' => 'land_here']]] as $what => [$far, $set]) {
            $end = $this->fly($this->settings($set), $against, $far, 0.0, 20.0, new Positioning(4), used: $used);
            self::assertSame(FlightEnd::Flown, $end, $what);
            $last = $this->track->points[\count($this->track->points) - 1];
            self::assertLessThan(0.5, $last[3], $what);
            self::assertLessThan(FlownPath::BREAKS_MS, $this->track->impactMs, $what);
            self::assertGreaterThan(15.0, $last[0], "$what: twenty metres at a metre a second");
        }
    }

    public function testNearHomeItDoesAsItIsSet(): void
    {
        $this->fly($this->settings(['return.if_near' => 'land_here']), Wind::calm(), 8.0, 0.0, 10.0, new Positioning(3));
        $last = $this->track->points[\count($this->track->points) - 1];
        self::assertEqualsWithDelta(8.0, $last[1], 2.0, 'down where it was');
        self::assertNotContains('fly_back', array_column($this->track->points, 5));
        $this->fly($this->settings(['return.if_near' => 'come_back']), Wind::calm(), 8.0, 0.0, 10.0, new Positioning(3));
        $last = $this->track->points[\count($this->track->points) - 1];
        self::assertLessThan(3.0, hypot($last[1], $last[2]));
        self::assertContains('fly_back', array_column($this->track->points, 5));
        $this->fly($this->settings(['return.if_near' => 'stay']), Wind::calm(), 8.0, 0.0, 10.0, new Positioning(3), seconds: 30.0);
        $last = $this->track->points[\count($this->track->points) - 1];
        self::assertSame('stay', $last[5]);
        self::assertEqualsWithDelta(10.0, $last[3], 1.5);
    }

    /** Never arm before the fix: home is where the fix came, not where it took off. */
    public function testArmedBeforeTheFixItComesHomeToAWrongPlace(): void
    {
        $this->fly($this->settings(), Wind::calm(), 80.0, 90.0, 25.0, new Positioning(3, firstS: 0.4), home: false);
        self::assertNotNull($this->track->home);
        self::assertEqualsWithDelta(80.0, $this->track->home[1], 4.0);
        $last = $this->track->points[\count($this->track->points) - 1];
        self::assertGreaterThan(70.0, hypot($last[1], $last[2]), 'it lies eighty metres from where its pilot stands');
    }

    public function testWithoutAFixItComesDownLevelAndWithItAgainItComesHome(): void
    {
        $slow = $this->settings(['link_loss.descend_throttle_pct' => 41.0, 'link_loss.descend_s' => 60.0]);
        $this->fly($slow, new Wind(3.0, 270.0, 0.5, 8), 60.0, 0.0, 25.0, new Positioning(3, lostS: 6.0, againS: 12.0));
        $stages = array_column($this->track->points, 5);
        self::assertContains(HomeStage::Blind->value, $stages);
        $last = $this->track->points[\count($this->track->points) - 1];
        self::assertLessThan(5.0, hypot($last[1], $last[2]), 'found again, it comes home');
        $this->fly($slow, new Wind(3.0, 270.0, 0.5, 8), 60.0, 0.0, 25.0, new Positioning(3, lostS: 6.0));
        $last = $this->track->points[\count($this->track->points) - 1];
        self::assertLessThan(1.0, $last[3], 'down');
        self::assertGreaterThan(20.0, hypot($last[1], $last[2]), 'but where the wind took it');
    }

    /** Without a compass it does not know which way it points: it does not fly anywhere by itself. */
    public function testWithoutACompassItIsBlind(): void
    {
        $this->fly($this->settings(['compass.enabled' => false]), Wind::calm(), 60.0, 0.0, 20.0, new Positioning(3));
        self::assertNotContains('fly_back', array_column($this->track->points, 5));
    }

    /** The iron of Bittern is twice as strong as the level part of the field: until it is calibrated, headings are anything. */
    public function testACompassPointsOnlyOnceItIsCalibrated(): void
    {
        $needle = Needle::of(Scenario::craft()['bittern']->physics->compass);
        $known = ['compass.offset.x_ut' => 18.4, 'compass.offset.y_ut' => -31.2, 'compass.offset.z_ut' => 22.7];
        $lies = ['compass.roll_deg' => 180.0, 'compass.pitch_deg' => 0.0, 'compass.yaw_deg' => 90.0];
        $worst = ['nothing' => 0.0, 'iron known' => 0.0];
        for ($deg = 0; $deg < 360; $deg += 10) {
            foreach (['nothing' => [], 'iron known' => $known + $lies] as $what => $set) {
                $heading = CompassHeading::of($needle, Marsh::earth(), $this->settings($set));
                $heading->look(0.0, [0.0, 0.0, (float) $deg], 0.0);
                $off = abs(fmod((float) $heading->deg - $deg + 540, 360) - 180);
                $worst[$what] = max($worst[$what], $off);
            }
        }
        self::assertGreaterThan(90.0, $worst['nothing']);
        self::assertLessThan(12.0, $worst['iron known'], 'what is left is soft iron');
    }

    #[Group('slow')]
    public function testALeverHoldsItsPlaceInTheWind(): void
    {
        $set = $this->settings(['action.position_hold.on_in' => '8:1250-1750', 'action.arm.on_in' => '5:1750-']);
        $this->fly(
            $set,
            new Wind(6.0, 200.0, 1.5, 12),
            0.0,
            0.0,
            15.0,
            new Positioning(7),
            seconds: 40.0,
            wanted: [Action::PositionHold],
            off: false,
        );
        $late = array_filter($this->track->points, static fn (array $p): bool => $p[0] > 12);
        $north = array_column($late, 1);
        $east = array_column($late, 2);
        self::assertLessThan(4.0, max($north) - min($north));
        self::assertLessThan(4.0, max($east) - min($east));
        $height = array_column($late, 3);
        self::assertLessThan(2.5, max($height) - min($height), 'and its height');
    }

    #[Group('slow')]
    public function testALeverBringsItHome(): void
    {
        $set = $this->settings(['action.return.on_in' => '8:1750-', 'action.arm.on_in' => '5:1750-']);
        $this->fly($set, new Wind(3.0, 20.0, 0.7, 12), 70.0, 120.0, 20.0, new Positioning(7), wanted: [Action::Return], off: false);
        $last = $this->track->points[\count($this->track->points) - 1];
        self::assertLessThan(5.0, hypot($last[1], $last[2]));
        self::assertLessThan(0.5, $last[3]);
    }

    public function testAFlightThatKnowsItsPlaceWritesItDown(): void
    {
        $stream = fopen('php://memory', 'w+');
        self::assertIsResource($stream);
        $this->fly($this->settings(), Wind::calm(), 30.0, 0.0, 12.0, new Positioning(5), seconds: 12.0, stream: $stream);
        rewind($stream);
        $path = (string) tempnam(sys_get_temp_dir(), 'fly');
        file_put_contents($path, $stream);
        $log = LogReader::readFile($path);
        unlink($path);
        self::assertEqualsWithDelta(30.0, $log->trace('position_north_m')[100], 3.0);
        self::assertSame(14.0, $log->trace('satellites')[100]);
        self::assertEqualsWithDelta($this->track->points[20][3], $log->trace('position_height_m')[50], 1.5);
    }

    private function air(): AirLaw
    {
        $physics = $this->physics();
        $hover = (new FlightSimulator($physics))->hoverThrottle();

        return AirLaw::of($physics->tilted45Ms, $physics->fullCurrentA * $hover ** 3 + 0.6);
    }

    /** Bittern with a compass that needs no calibration. */
    private function physics(): CraftPhysics
    {
        $sound = ['compass' => ['hard' => [0.0, 0.0, 0.0]]] + get_object_vars(Scenario::craft()['bittern']->physics);

        return (new \ReflectionClass(CraftPhysics::class))->newInstanceArgs($sound);
    }

    /** @param array<string, float|int|bool|string> $changed */
    private function settings(array $changed = []): SettingSet
    {
        $demo = Scenario::craft()['bittern'];

        return Catalogue::loam()
            ->defaults(Version::parse(Catalogue::CURRENT))
            ->with($demo->settings)
            ->with(['link_loss.then' => 'return', 'motors.loop_rate_hz' => (string) $this->loopHz, 'recorder.rate_hz' => '50'])
            ->with(['compass.enabled' => true, 'compass.declination_deg' => -0.2])
            ->with($changed);
    }

    /**
     * @param list<Action>  $wanted
     * @param resource|null $stream
     */
    private function fly(
        SettingSet $set,
        Wind $wind,
        float $distance,
        float $bearing,
        float $height,
        Positioning $positioning,
        bool $home = true,
        float $seconds = 240.0,
        array $wanted = [Action::Angle],
        bool $off = true,
        $stream = null,
        float $used = 0.1,
    ): FlightEnd {
        $this->track = new Track();
        $radio = RadioState::fromArray(Scenario::craft()['bittern']->radio);
        $sortie = new Sortie(
            Itinerary::stay($height, $distance * cos(deg2rad($bearing)), $distance * sin(deg2rad($bearing))),
            Road::of($radio, Rill::S, $set),
            $off ? SwitchOff::at(1.0) : null,
            $wind,
            $height,
            $used,
            $wanted,
            track: $this->track,
            fromM: [$distance * cos(deg2rad($bearing)), $distance * sin(deg2rad($bearing))],
            positioning: $positioning,
            homeIsSet: $home,
        );
        $stream ??= fopen('php://memory', 'w+');
        self::assertIsResource($stream);

        return (new FlightSimulator($this->physics()))->goOut(
            $sortie,
            $set,
            $seconds,
            12,
            [],
            new CsvRecorder($stream),
            static fn (float $share): bool => true,
        );
    }
}
