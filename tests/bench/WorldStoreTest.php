<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Sensors\Noise;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\State\WorldStore;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\TestCase;

final class WorldStoreTest extends TestCase
{
    private string $folder = '';

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/world-'.bin2hex(random_bytes(6));
    }

    protected function tearDown(): void
    {
        foreach (glob("$this->folder/*") ?: [] as $file) {
            unlink($file);
        }
        @rmdir($this->folder);
    }

    public function testTwoProcessesNeverLoseEachOthersChanges(): void
    {
        $code =
            'require $argv[1]."/vendor/autoload.php"; $s = new Ortholex\Bench\State\WorldStore($argv[2]);'
            .' for ($i = 0; $i < 200; ++$i) { $s->change(function ($w) { ++$w->cableMoves; }); }';
        $running = [];
        for ($n = 0; $n < 3; ++$n) {
            $running[] = proc_open([\PHP_BINARY, '-r', $code, '--', \dirname(__DIR__, 2), $this->folder], [], $pipes);
        }
        foreach ($running as $process) {
            self::assertIsResource($process);
            self::assertSame(0, proc_close($process));
        }
        self::assertSame(600, (new WorldStore($this->folder))->peek()->cableMoves);
    }

    public function testWhatIsKeptComesBackTypeForType(): void
    {
        $store = new WorldStore($this->folder);
        $store->change(static function (WorldState $s): void {
            $s->cable = true;
            $s->tilt = 'nose_up';
            $s->bootedAt = 1234.0;
            $s->kept = ['gain.roll.p' => 33.0, 'motors.rotor_magnets' => 14, 'motors.rpm_feedback' => true, 'notch.motor.orders' => '1,2'];
            $s->faults = ['loose_arm'];
        });
        $s = $store->peek();
        self::assertSame([true, 'nose_up', 1234.0, ['loose_arm']], [$s->cable, $s->tilt, $s->bootedAt, $s->faults]);
        self::assertSame(
            ['gain.roll.p' => 33.0, 'motors.rotor_magnets' => 14, 'motors.rpm_feedback' => true, 'notch.motor.orders' => '1,2'],
            $s->kept,
        );
    }

    public function testALookLeavesNoTraceAndAFailureChangesNothing(): void
    {
        $store = new WorldStore($this->folder);
        $store->change(static function (WorldState $s): void {
            $s->cableMoves = 5;
        });
        $before = filemtime("$this->folder/world.json");
        touch("$this->folder/world.json", (int) $before - 100);
        $store->change(static fn (WorldState $s): int => $s->cableMoves);
        clearstatcache();
        self::assertSame((int) $before - 100, filemtime("$this->folder/world.json"));
        try {
            $store->change(static function (WorldState $s): void {
                $s->cableMoves = 9;
                throw new \RuntimeException('in the middle');
            });
        } catch (\RuntimeException) {
            $this->addToAssertionCount(1);
        }
        self::assertSame(5, $store->peek()->cableMoves);
    }

    public function testEveryCardIsFlownWithinTheSticksAndEndsOnTheGround(): void
    {
        foreach (Card::gathering() as $card) {
            foreach ([1, 2, 3] as $seed) {
                $frames = FlightCard::fly($card, 40, 150, 0.4, $seed)->frames;
                self::assertGreaterThanOrEqual(6000, \count($frames));
                foreach ($frames as [$roll, $pitch, $yaw, $throttle]) {
                    self::assertLessThanOrEqual(1.0, max(abs($roll), abs($pitch), abs($yaw)));
                    self::assertTrue($throttle >= 0.0 && $throttle <= 1.0);
                }
                self::assertSame(0.0, $frames[0][3]);
                self::assertEqualsWithDelta(0.0, $frames[5999][3], 0.02, "{$card->name} lands");
            }
        }
    }

    public function testNoiseIsNormal(): void
    {
        $values = (new Noise(4))->block(40000);
        self::assertEqualsWithDelta(0.0, Statistics::mean($values), 0.02);
        self::assertEqualsWithDelta(1.0, Statistics::deviation($values), 0.02);
        self::assertEqualsWithDelta(0.6827, \count(array_filter($values, static fn (float $v): bool => abs($v) < 1)) / 40000, 0.01);
        self::assertSame($values, (new Noise(4))->block(40000));
    }

    public function testTheScenarioHoldsTogether(): void
    {
        foreach (Scenario::craft() as $slug => $craft) {
            self::assertSame($slug, $craft->slug);
            self::assertEqualsCanonicalizing(
                $craft->physics->frame->places(),
                array_values($craft->physics->wiredPads),
                'each motor is soldered to one pad',
            );
            self::assertArrayHasKey($craft->model->hardwareId, PartsCatalogue::shipped()->boards);
            self::assertCount(\count($craft->physics->frame->motors), $craft->physics->imbalance);
            self::assertLessThan($craft->physics->restVoltage(0.0), $craft->physics->restVoltage(0.9));
        }
    }
}
