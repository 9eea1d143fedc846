<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Airframe;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Airframe\AirframeFlaw;
use Ortholex\Core\Airframe\LevelCheck;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Airframe\MotorPlace;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Craft\SettingSet;
use PHPUnit\Framework\TestCase;

final class FrameOfSettingsTest extends TestCase
{
    public function testEachLayoutStandsAsItsDimensionsSay(): void
    {
        foreach (['quad_x' => 4, 'quad_plus' => 4, 'quad_stretched' => 4, 'hexa_x' => 6] as $layout => $motors) {
            foreach (['props_in', 'props_out'] as $props) {
                $frame = Airframe::of(
                    SettingSet::of([
                        'frame.layout' => $layout,
                        'frame.diagonal_mm' => 300.0,
                        'frame.stretch' => 1.5,
                        'props.direction' => $props,
                    ]),
                );
                self::assertCount($motors, $frame->motors);
                foreach ($frame->motors as $m) {
                    self::assertEqualsWithDelta(0.15, hypot($m->x, $m->y), 1e-12, "$layout: every motor half a diagonal from the middle");
                }
                self::assertEqualsWithDelta(
                    0.0,
                    array_sum(array_map(static fn (MotorPlace $m): int => $m->spin, $frame->motors)),
                    1e-12,
                    'as many turn one way as the other',
                );
                Mixer::of($frame);
            }
        }
        $stretched = Airframe::of(
            SettingSet::of(['frame.layout' => 'quad_stretched', 'frame.diagonal_mm' => 300.0, 'frame.stretch' => 1.5]),
        )->at('front_right');
        self::assertNotNull($stretched);
        self::assertEqualsWithDelta(1.5, $stretched->x / $stretched->y, 1e-12);
        self::assertSame(1, Airframe::of(SettingSet::of([]))->at('front_left')?->spin, 'props-in: front left clockwise from above');
        self::assertSame(-1, Airframe::of(SettingSet::of(['props.direction' => 'props_out']))->at('front_left')?->spin);
    }

    public function testACustomFrameWithTheArmsOfAQuadXIsThatQuadX(): void
    {
        $settings = ['frame.layout' => 'custom'];
        foreach (Airframe::quadX(0.3)->motors as $m) {
            $settings["motor_place.$m->place.forward_mm"] = 1000 * $m->x;
            $settings["motor_place.$m->place.right_mm"] = 1000 * $m->y;
        }
        foreach (Airframe::of(SettingSet::of($settings))->motors as $m) {
            $as = Airframe::quadX(0.3)->at($m->place);
            self::assertEqualsWithDelta([$as?->x, $as?->y, $as?->spin], [$m->x, $m->y, $m->spin], 1e-9, $m->place);
        }
    }

    public function testArmsThatMakeNoFrameAreRefused(): void
    {
        $this->refuses(AirframeFlaw::TooFewMotors, [
            'frame.layout' => 'custom',
            'motor_place.front.forward_mm' => 100.0,
            'motor_place.rear.forward_mm' => -100.0,
        ]);
        $this->refuses(AirframeFlaw::TwoInOneSpot, [
            'frame.layout' => 'custom',
            'motor_place.front.forward_mm' => 100.0,
            'motor_place.front_right.forward_mm' => 101.0,
            'motor_place.rear.forward_mm' => -100.0,
            'motor_place.left.right_mm' => -100.0,
        ]);
    }

    /** Any small crookedness under any right-angled mounting is found to the tenth of a degree. */
    public function testLevelIsWhatIsLeftBeyondTheMounting(): void
    {
        mt_srand(5);
        for ($n = 0; $n < 300; ++$n) {
            $mounting = Rotation::degrees(90.0 * mt_rand(-1, 2), 0.0, 90.0 * mt_rand(-1, 2));
            [$roll, $pitch] = [mt_rand(-70, 70) / 10, mt_rand(-70, 70) / 10];
            // What the board would show through its mounting, were it no more crooked than this.
            $down = $mounting->undo(Rotation::degrees($roll, $pitch, 0.0)->undo([0.0, 0.0, 1.0]));
            $level = LevelCheck::of([-$down[0], -$down[1], -$down[2]], $mounting);
            self::assertEqualsWithDelta([$roll, $pitch], [$level->rollDeg, $level->pitchDeg], 0.051);
            // Taken off, nothing is left.
            $left = Rotation::degrees($level->rollDeg, $level->pitchDeg, 0.0)->apply($mounting->apply($down));
            self::assertGreaterThan(cos(deg2rad(0.15)), $left[2]);
        }
    }

    public function testAMovingOrSlantedCraftIsNotCalibrated(): void
    {
        foreach ([[[0.0, 0.0, -1.4], AirframeFlaw::Moves], [[0.0, -0.5, -0.87], AirframeFlaw::NotLevel]] as [$force, $flaw]) {
            try {
                LevelCheck::of($force, Rotation::degrees(0.0, 0.0, 0.0));
                self::fail('It was taken.');
            } catch (AirframeError $e) {
                self::assertSame($flaw, $e->flaw->code);
            }
        }
    }

    /** @param array<string, float|string> $settings */
    private function refuses(AirframeFlaw $flaw, array $settings): void
    {
        try {
            Airframe::of(SettingSet::of($settings));
            self::fail("It was a frame: $flaw->name");
        } catch (AirframeError $e) {
            self::assertSame($flaw, $e->flaw->code);
        }
    }
}
