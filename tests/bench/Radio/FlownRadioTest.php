<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Radio;

use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Bench\Radio\Model;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Control\TestFeel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Flights through the whole road of a radio: thumb, transmitter, frames, spans, feel. What is wrong with it, the log shows. */
final class FlownRadioTest extends TestCase
{
    /** The levers as they stand would level it: here the sticks are rates. */
    private const RATES = ['action.angle.on_in' => '', 'action.horizon.on_in' => ''];

    private FlightEnd $end = FlightEnd::Flown;

    public function testASoundRadioChangesNothing(): void
    {
        $straight = $this->fly([], []);
        self::assertSame(FlightEnd::Flown, $this->end);
        $model = ['order' => [3, 2, 1, 0, 4, 5, 6, 7, 8, 9, 10, 11]];
        $set = ['channel.roll.number' => 4, 'channel.yaw.number' => 1, 'channel.pitch.number' => 3, 'channel.throttle.number' => 2];
        $other = $this->fly($model, $set);
        $roll = 'setpoint_roll_dps';
        self::assertSame($straight->trace($roll), $other->trace($roll), 'an order that both know is no order at all');
    }

    public function testAReversedChannelRollsTheOtherWay(): void
    {
        $straight = $this->fly([], [])->trace('rate_filtered_roll_dps');
        $turned = $this->fly(['reversed' => [true, ...array_fill(0, 11, false)]], [])->trace('rate_filtered_roll_dps');
        self::assertLessThan(-0.95, self::correlation($straight, $turned));
        $mended = $this->fly(['reversed' => [true, ...array_fill(0, 11, false)]], ['channel.roll.reversed' => true]);
        self::assertGreaterThan(0.99, self::correlation($straight, $mended->trace('rate_filtered_roll_dps')));
    }

    public function testAShortSpanNeverReachesTheFullRate(): void
    {
        $short = ['low' => [70.0, ...array_fill(0, 11, 100.0)], 'high' => [70.0, ...array_fill(0, 11, 100.0)]];
        $peak = static fn (FlightLog $log): float => Statistics::quantile(array_map(abs(...), $log->trace('setpoint_roll_dps')), 0.999);
        $full = $peak($this->fly([], [], Card::FlipSet));
        $less = $peak($this->fly($short, [], Card::FlipSet));
        self::assertGreaterThan(590, $full);
        self::assertLessThan(0.68 * $full, $less);
        $told = ['channel.roll.low_us' => 1150.0, 'channel.roll.high_us' => 1850.0];
        self::assertEqualsWithDelta($full, $peak($this->fly($short, $told, Card::FlipSet)), 0.01 * $full, 'told its real span, it does');
    }

    public function testSwappedChannelsPitchWhenTheyShouldRoll(): void
    {
        $straight = $this->fly([], []);
        $swapped = $this->fly(['order' => [1, 0, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11]], []);
        $of = static fn (FlightLog $log, string $axis): array => $log->trace("rate_filtered_{$axis}_dps");
        self::assertGreaterThan(0.9, self::correlation($of($straight, 'roll'), $of($swapped, 'pitch')));
        self::assertLessThan(0.4, abs(self::correlation($of($straight, 'roll'), $of($swapped, 'roll'))));
    }

    public function testThrottleOnTheRollChannelNeverStopsTurning(): void
    {
        $turns = static fn (FlightLog $log): float => Statistics::mean(array_map(abs(...), $log->trace('setpoint_roll_dps')));
        $straight = $this->fly([], [], Card::HoverAndClimb);
        // Throttle and roll changed about: a craft at half throttle that rolls as it should climb.
        $log = $this->fly(['order' => [2, 1, 0, 3, 4, 5, 6, 7, 8, 9, 10, 11]], [], Card::HoverAndClimb);
        self::assertGreaterThan(3 * $turns($straight) + 50, $turns($log));
        self::assertEqualsWithDelta(50.0, Statistics::median($log->trace('throttle_pct')), 3.0, 'its throttle stands where roll rests');
    }

    public function testLostFramesLeaveSteps(): void
    {
        $log = $this->fly([], [], Card::MixedSticks, drops: 0.4);
        $stick = $log->trace('stick_roll_us');
        $longest = $run = 0;
        for ($i = 1, $n = \count($stick); $i < $n; ++$i) {
            $run = $stick[$i] === $stick[$i - 1] && abs($stick[$i] - 1500) > 30 ? $run + 1 : 0;
            $longest = max($longest, $run);
        }
        self::assertGreaterThan(4 * 2000 / 150, $longest, 'a stick under way stands still for several frames');
    }

    /** A pilot flies the same card with a sharp feel, feed-forward and added D, and with the test feel. */
    #[Group('slow')]
    public function testALogFlownWithTheTestFeelIsGradedBetter(): void
    {
        $before = [
            'feel.roll.full_dps' => 1100.0,
            'feel.pitch.full_dps' => 1100.0,
            'gain.roll.ff' => 1.2,
            'gain.pitch.ff' => 1.2,
            'gain.roll.added_d' => 1.5,
            'gain.pitch.added_d' => 1.5,
        ];
        $sharp = $this->grades($before);
        $test = $this->grades(TestFeel::settings($this->settings($before))->toArray());
        self::assertGreaterThan($sharp[0], $test[0], 'roll: '.json_encode([$sharp, $test]));
        self::assertGreaterThan($sharp[1], $test[1], 'pitch: '.json_encode([$sharp, $test]));
    }

    /**
     * @param array<string, float|int|bool|string> $set
     *
     * @return array{int, int} how far roll and pitch can be believed, 0 to 3
     */
    private function grades(array $set): array
    {
        $log = $this->fly([], $set, Card::MixedSticks, 40);
        $steps = Report::of($log, FlightAnalysis::of($log, false))->steps;
        $worth = static fn (Grade $g): int => (int) array_search($g, [Grade::None, Grade::Weak, Grade::Fair, Grade::Firm], true);

        return [$worth($steps['roll']->confidence->grade), $worth($steps['pitch']->confidence->grade)];
    }

    /**
     * @param array<string, list<float|int|bool>>  $memory  what the transmitter's memory has otherwise than a sound one
     * @param array<string, float|int|bool|string> $changed
     */
    private function fly(array $memory, array $changed, Card $card = Card::MixedSticks, int $seconds = 12, float $drops = 0.0): FlightLog
    {
        $physics = Scenario::craft()['curlew']->physics;
        $simulator = new FlightSimulator($physics);
        $set = $this->settings($changed);
        $radio = new RadioState();
        $radio->models = [$radio->model => $memory + Model::sound()->toArray()];
        $radio->drops = $drops;
        $path = (string) tempnam(sys_get_temp_dir(), 'fly');
        $stream = fopen($path, 'w');
        self::assertIsResource($stream);
        $flown = FlightCard::fly($card, $seconds, 150, $simulator->hoverThrottle(), 3)->through(Road::of($radio, Rill::C, $set));
        $this->end = $simulator->fly($flown, $set, $seconds, 9, [], new CsvRecorder($stream), static fn (float $share): bool => true);
        fclose($stream);
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }

    /** @param array<string, float|int|bool|string> $changed */
    private function settings(array $changed): SettingSet
    {
        $current = Version::parse(Catalogue::CURRENT);

        return Catalogue::loam()->defaults($current)->with(Scenario::craft()['curlew']->settings)->with(self::RATES)->with($changed);
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     */
    private static function correlation(array $a, array $b): float
    {
        $n = min(\count($a), \count($b));
        [$ma, $mb] = [Statistics::mean($a), Statistics::mean($b)];
        $ab = $aa = $bb = 0.0;
        for ($i = 0; $i < $n; ++$i) {
            $ab += ($a[$i] - $ma) * ($b[$i] - $mb);
            $aa += ($a[$i] - $ma) ** 2;
            $bb += ($b[$i] - $mb) ** 2;
        }

        return $ab / sqrt($aa * $bb);
    }
}
