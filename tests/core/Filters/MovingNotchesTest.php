<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\MovingNotches;
use Ortholex\Core\Filters\TrackingNotches;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class MovingNotchesTest extends TestCase
{
    /** @return iterable<string, array{float, float, float, float}> loop Hz, log Hz, centre Hz, how near */
    public static function rates(): iterable
    {
        yield 'as fast as the loop' => [2000.0, 2000.0, 210.0, 0.03];
        yield 'half as fast' => [4000.0, 2000.0, 310.0, 0.03];
        yield 'an eighth' => [8000.0, 1000.0, 180.0, 0.03];
        // Above a quarter of the log's rate the bilinear transform leans.
        yield 'an eighth, high up' => [8000.0, 1000.0, 330.0, 0.07];
    }

    /** In a log of any rate it has the gain that the board's own notch has: none at its middle, −3 dB at the edges of its width. */
    #[DataProvider('rates')]
    public function testANotchTakesOutWhatTheBoardsTakesOut(float $loopHz, float $logHz, float $centreHz, float $near): void
    {
        $moving = MovingNotches::of($this->set(['notch.motor.orders' => '1', 'notch.motor.width_pct' => 30.0]), $loopHz);
        $stage = FilterStage::notch($centreHz, 30.0, $loopHz);
        foreach ([1.0, 0.93, 0.86, 1.08, 1.16, 0.5, 1.4] as $share) {
            $hz = $share * $centreHz;
            [$re, $im] = $stage->response($hz, $loopHz);
            $n = (int) (1.5 * $logHz);
            $sine = array_map(static fn (int $i): float => sin((2 * \M_PI * $hz * $i) / $logHz), range(0, $n - 1));
            $out = $moving->run($sine, [array_fill(0, $n, $centreHz)], $logHz)[0];
            // Over the last second the sine's own amplitude, by correlation with both phases.
            $c = $s = 0.0;
            for ($i = (int) ($n - $logHz); $i < $n; ++$i) {
                $c += $out[$i] * cos((2 * \M_PI * $hz * $i) / $logHz);
                $s += $out[$i] * sin((2 * \M_PI * $hz * $i) / $logHz);
            }
            self::assertEqualsWithDelta(hypot($re, $im), (2 * hypot($c, $s)) / $logHz, $near, "at $share of the middle");
        }
    }

    public function testFollowsASpeedThatChangesAndWaitsAtItsFloor(): void
    {
        $moving = MovingNotches::of($this->set(['notch.motor.orders' => '1,2', 'notch.motor.floor_hz' => 90.0]), 2000.0);
        self::assertSame([90.0, 90.0, 200.0, 960.0], [
            $moving->centreHz(1, 20.0),
            $moving->centreHz(2, 45.0),
            $moving->centreHz(2, 100.0),
            $moving->centreHz(3, 900.0),
        ]);
        $rotor = $sine = [];
        $phase = 0.0;
        for ($i = 0; $i < 8000; ++$i) {
            $rotor[] = $hz = 150 + 60 * sin($i / 1500);
            $phase += (2 * \M_PI * $hz) / 2000;
            $sine[] = 10 * sin($phase) + 5 * sin(2 * $phase);
        }
        $left = $moving->run($sine, [$rotor], 2000.0)[0];
        self::assertLessThan(0.25, max(array_map(abs(...), \array_slice($left, 400))), 'both lines, at every speed');
        $still = MovingNotches::of($this->set([]), 2000.0);
        self::assertTrue($still->areOff());
        self::assertSame($sine, $still->run($sine, [$rotor], 2000.0)[0]);
    }

    /** A whole run at once looks where the board looks, which gets its samples one by one. */
    public function testLooksLikeTheBoardThatGetsOneSampleAfterTheOther(): void
    {
        $lcg = new Lcg(5);
        $rate = [];
        for ($i = 0; $i < 3000; ++$i) {
            // For a while it stands still and says nothing at all, as before arming.
            $rate[] = $i > 1200 && $i < 2000 ? 0.0 : 8 * sin($i * 0.5) + 3 * sin($i * 0.9) + $lcg->normal();
        }
        $single = new TrackingNotches(2, 85.0, 340.0, 2000.0);
        $at = [0 => $single->centres];
        foreach ($rate as $i => $v) {
            if ($single->push($v)) {
                $at[$i] = $single->centres;
            }
        }
        $whole = new TrackingNotches(2, 85.0, 340.0, 2000.0);
        $over = $whole->over($rate);
        self::assertSame(array_keys($at), array_keys($over));
        // Two looks share a transform, which rounds otherwise.
        self::assertEqualsWithDelta($at, $over, 1e-9);
        self::assertGreaterThan(20, \count($at));
        self::assertSame($at[1655], $at[1955], 'what stands still is not followed');
    }

    /** Of a log so slow that the band lies above all that it shows, nothing can be followed; the notches rest, and nothing is cut. */
    public function testABandThatALogDoesNotReachIsNotFollowed(): void
    {
        $rate = array_map(static fn (int $i): float => 10 * sin($i * 0.6), range(0, 799));
        foreach ([60.0, 100.0, 170.0] as $logHz) {
            $tracker = new TrackingNotches(2, 85.0, min(340.0, 0.48 * $logHz), $logHz);
            $at = $tracker->over($rate);
            self::assertGreaterThan(10, \count($at));
            self::assertSame([$at[0]], array_values(array_unique($at, \SORT_REGULAR)));
            foreach ($rate as $v) {
                $tracker->push($v);
            }
            self::assertSame($at[0], $tracker->centres);
        }
    }

    public function testATrackingNotchEndsALineThatNoSpeedTellsOf(): void
    {
        $moving = MovingNotches::of($this->set(['notch.tracking.peaks' => 1]), 2000.0);
        $sine = array_map(static fn (int $i): float => 10 * sin($i * 0.6), range(0, 5999));
        [$left, $at] = $moving->run($sine, [], 2000.0);
        self::assertEqualsWithDelta(0.6 * 2000 / 2 / \M_PI, $at[\count($at) - 1][0], 3.0, 'within half a bin of its spectrum');
        self::assertLessThan(1.5, max(array_map(abs(...), \array_slice($left, 4000))), 'of ten');
    }

    public function testAnEmptyRunStaysEmpty(): void
    {
        $moving = MovingNotches::of($this->set(['notch.motor.orders' => '1', 'notch.tracking.peaks' => 2]), 2000.0);
        self::assertSame([], $moving->run([], [[]], 2000.0)[0]);
    }

    /** @param array<string, float|int|bool|string> $set */
    private function set(array $set): SettingSet
    {
        return SettingSet::of(['motors.rpm_feedback' => true, ...$set]);
    }
}
