<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Aids;

use Ortholex\Bench\Board\Lie;
use Ortholex\Bench\Compass\Needle;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Compass\Calibration;
use Ortholex\Core\Compass\CompassFit;
use Ortholex\Core\Compass\CompassMounting;
use Ortholex\Core\Compass\MotorDisturbance;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\Aids\CompassReading;
use Ortholex\Core\Link\LinkError;

/** The compass on the bench: bent by iron, laid on its back and disturbed by motors, and found out through the board. */
final class CompassTest extends AidsCase
{
    public function testTurnedInTheHandItIsCalibratedAndItsMountingFound(): void
    {
        $this->onBench();
        $this->levelled();
        $readings = $this->turned();
        $fit = CompassFit::of(array_map(static fn (CompassReading $r): array => $r->fieldUt, $readings));
        self::assertLessThan(0.02, $fit->residual);
        foreach ([18.4, -31.2, 22.7] as $axis => $ut) {
            self::assertEqualsWithDelta($ut, $fit->offset[$axis], 0.3, 'the iron that Bittern carries');
        }
        $poses = array_map(static fn (CompassReading $r): array => [$fit->apply($r->fieldUt), $r->forceG], $readings);
        $mounting = CompassMounting::of($poses, Marsh::earth()->inclinationDeg());
        self::assertSame([180.0, 0.0, 90.0], [$mounting->rollDeg, $mounting->pitchDeg, $mounting->yawDeg]);
        // Set so, each heading on the desk is right within two degrees.
        $set = SettingSet::of(Calibration::settings($fit) + [
            'compass.roll_deg' => $mounting->rollDeg,
            'compass.pitch_deg' => $mounting->pitchDeg,
            'compass.yaw_deg' => $mounting->yawDeg,
        ]);
        $this->world->move('tumble', '0');
        for ($deg = 0; $deg < 360; $deg += 15) {
            $this->world->move('heading', (string) $deg);
            // As a board smooths it: one reading of the accelerometer trembles by a third of a degree.
            $some = $this->aids()->compass(50);
            $field = $force = [0.0, 0.0, 0.0];
            foreach ($some as $reading) {
                foreach ([0, 1, 2] as $axis) {
                    $field[$axis] += $reading->fieldUt[$axis] / 50;
                    $force[$axis] += $reading->forceG[$axis] / 50;
                }
            }
            $is = Calibration::in($set)->heading($field, $force) + Marsh::earth()->declinationDeg();
            self::assertEqualsWithDelta(0.0, fmod($is - $deg + 540, 360) - 180, 2.0, "pointing at {$deg}°");
        }
    }

    /** Raised by the board's own motors: the slope is what was built in, within a twentieth. */
    public function testWhatTheMotorsDoIsMeasured(): void
    {
        $client = $this->onBench();
        $this->world->move('props_declared_off', '1');
        $readings = [];
        foreach ([0.0, 5.0, 10.0, 15.0, 10.0, 5.0, 0.0] as $pct) {
            for ($i = 0; $i < 8; ++$i) {
                $client->spin(0, $pct);
                foreach ($this->aids()->compass(20) as $n => $reading) {
                    if ($i > 0 && 0 === $n % 4) {
                        $readings[] = [$reading->outputPct, $reading->fieldUt];
                    }
                }
            }
        }
        $by = MotorDisturbance::of($readings);
        $needle = Needle::of($this->demo->physics->compass);
        self::assertNotNull($needle);
        $flat = Rotation::degrees(0, 0, 0);
        $with = $needle->reads(Marsh::earth(), $flat, 10.0);
        $without = $needle->reads(Marsh::earth(), $flat, 0.0);
        $truth = sqrt(array_sum(array_map(static fn (float $a, float $b): float => (($a - $b) / 10) ** 2, $with, $without)));
        self::assertEqualsWithDelta($truth, $by->slopeUt ?? 0.0, 0.05 * $truth);
    }

    public function testWithoutACompassOrWhileItIsOffItIsRefused(): void
    {
        $this->onBench(['compass.enabled' => false]);
        try {
            $this->aids()->compass(5);
            self::fail('off');
        } catch (LinkError $e) {
            self::assertTrue($e->refused);
            self::assertStringContainsString('off', $e->getMessage());
        }
        $this->slug = 'curlew';
        $this->setUp();
        $this->plug();
        $this->expectException(LinkError::class);
        $this->aids()->compass(5);
    }

    public function testAHandThatTurnsItKeepsItFromArming(): void
    {
        $this->onBench();
        $this->world->move('tumble', '1');
        self::assertTrue(Lie::tumbles($this->world->store->peek(), $this->pace->now() + 1));
        $this->pace->wait(Lie::TUMBLES_S + 1);
        self::assertFalse(Lie::tumbles($this->world->store->peek(), $this->pace->now()), 'laid down by itself');
    }

    /** As level calibration on 13 leaves it: an accelerometer that lies by a degree turns headings by 2.6, where the field dips by 69. */
    private function levelled(): void
    {
        [$roll, $pitch] = [0.0, 0.0];
        for ($i = 0; $i < 4; ++$i) {
            $state = $this->client()->state();
            $roll += $state->rollDeg;
            $pitch += $state->pitchDeg;
            $this->client()->writeSetting('level.roll_deg', round($roll, 2));
            $this->client()->writeSetting('level.pitch_deg', round($pitch, 2));
        }
    }

    /** @return list<CompassReading> */
    private function turned(): array
    {
        $this->world->move('tumble', '1');
        $readings = [];
        for ($t = 0.0; $t < Lie::TUMBLES_S - 1; $t += 0.4) {
            $readings = [...$readings, ...\array_slice($this->aids()->compass(20), -4)];
        }

        return $readings;
    }
}
