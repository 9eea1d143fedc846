<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Recorder;

use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Flight\Recording\MemoryRecorder;
use Ortholex\Bench\Recorder\RecorderMemory;
use Ortholex\Bench\World\World;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Recorder\RecorderClient;
use Ortholex\Core\Link\Recorder\RecordFetch;
use Ortholex\Core\Recorder\Recording;
use Ortholex\Core\Recorder\RecordingError;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Tests\bench\BenchCase;
use PHPUnit\Framework\Attributes\TestWith;

/** The memory for logs on the board: filled by flights, fetched over the link, held against what the board has, erased when asked. */
final class RecorderTest extends BenchCase
{
    private string $path;

    protected function setUp(): void
    {
        parent::setUp();
        $this->path = (string) tempnam(sys_get_temp_dir(), 'fetch');
        unlink($this->path);
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
        exec('rm -rf '.escapeshellarg($this->world->store->recorderPath()));
        parent::tearDown();
    }

    public function testWhatWasFlownIsFetchedToTheBit(): void
    {
        $this->record(20.0);
        $state = $this->recorder()->about();
        self::assertSame(134_217_728, $state->bytes);
        self::assertSame([1], array_keys($state->recordings));
        self::assertSame($state->bytes - $state->recordings[1], $state->free);
        $shares = [];
        $this->fetch()->into($this->path, 1, $state->recordings[1], static function (float $s) use (&$shares): void {
            $shares[] = $s;
        });
        self::assertSame($this->held(1), file_get_contents($this->path));
        self::assertSame(1.0, end($shares));
        $log = Recording::read((string) file_get_contents($this->path))->log;
        self::assertSame(['throttle_pct', 'rate_measured_roll_dps'], $log->names());
        self::assertSame(20_000, $log->clock->samples);
        self::assertEqualsWithDelta(self::roll(7.321), $log->trace('rate_measured_roll_dps')[7321], 0.011);
    }

    /** How long it could still write: bytes ÷ (2 × traces × rate). */
    public function testRoomIsToldInSeconds(): void
    {
        $state = $this->recorder()->about();
        self::assertEqualsWithDelta(134_217_728 / (2 * 40 * 2000), $state->secondsLeft(40, 2000), 1e-9);
    }

    /** @param int $after how many messages come through before the cable is pulled */
    #[TestWith([4])]
    #[TestWith([9])]
    #[TestWith([30])]
    public function testTornByTheCableItGoesOnWhereItWas(int $after): void
    {
        $this->record(240.0);
        $bytes = $this->recorder()->about()->recordings[1];
        $told = 0;
        try {
            $this->fetch()->into($this->path, 1, $bytes, function () use (&$told, $after): void {
                if (++$told === $after) {
                    $this->world->move('cable', '0');
                }
            });
            self::fail('the cable was pulled');
        } catch (LinkError $e) {
            self::assertTrue($e->lost);
        }
        $kept = (int) filesize($this->path);
        self::assertSame($after * 8192, $kept);
        $this->world->move('cable', '1');
        $this->pace->wait(1.0);
        $shares = [];
        $this->fetch()->into($this->path, 1, $bytes, static function (float $s) use (&$shares): void {
            $shares[] = $s;
        });
        self::assertGreaterThan(0.97 * $kept / $bytes, $shares[0], 'nothing that was there comes twice');
        self::assertSame($this->held(1), file_get_contents($this->path));
    }

    public function testAPartOfAnotherRecordingIsNotGoneOnWith(): void
    {
        $this->record(10.0);
        $this->record(12.0, 3.0);
        file_put_contents($this->path, substr($this->held(2), 0, 20_000));
        $this->fetch()->into($this->path, 1, \strlen($this->held(1)), static function (): void {
        });
        self::assertSame($this->held(1), file_get_contents($this->path));
    }

    /** Longer than the board says, as an earlier Ortholex or another hand may have left it. */
    public function testAFileThatIsTooLongIsCut(): void
    {
        $this->record(10.0);
        file_put_contents($this->path, $this->held(1).'more');
        $this->fetch()->into($this->path, 1, \strlen($this->held(1)), static function (): void {
        });
        self::assertSame($this->held(1), file_get_contents($this->path));
    }

    /** What a disk spoils while it is being fetched is found by the sum at the end, and that piece alone comes once more. */
    public function testAPieceThatIsSpoiltComesOnceMore(): void
    {
        $this->record(30.0);
        $bytes = \strlen($this->held(1));
        $spoilt = false;
        $this->fetch()->into($this->path, 1, $bytes, function (float $share) use (&$spoilt): void {
            if (!$spoilt && $share > 0.6) {
                $spoilt = true;
                $file = fopen($this->path, 'r+b') ?: self::fail('it is there');
                fseek($file, 5000);
                fwrite($file, '!!!');
                fclose($file);
            }
        });
        self::assertTrue($spoilt);
        self::assertSame($this->held(1), file_get_contents($this->path));
    }

    /** A cable that garbles one message in twelve costs time, not bytes. */
    public function testANoisyCableCostsNothingButTime(): void
    {
        $this->record(20.0);
        $this->world->move('fault:noisy_cable', '1');
        $this->fetch()->into($this->path, 1, \strlen($this->held(1)), static function (): void {
        });
        self::assertSame($this->held(1), file_get_contents($this->path));
    }

    public function testWhereNothingCanBeWrittenItSaysWhere(): void
    {
        $this->record(5.0);
        $this->expectException(RecordingError::class);
        $this->expectExceptionMessage('/nowhere/at/all.rec');
        $this->fetch()->into('/nowhere/at/all.rec', 1, \strlen($this->held(1)), static function (): void {
        });
    }

    public function testErasedItIsEmptyAndNumbersGoOn(): void
    {
        $this->record(10.0);
        $this->record(10.0, 2.0);
        $recorder = $this->recorder();
        $recorder->erase();
        $state = $recorder->about();
        self::assertSame([], $state->recordings);
        self::assertGreaterThan(0.0, $state->busyS);
        try {
            $recorder->read(1, 0, 10);
            self::fail('it was read while it erases');
        } catch (LinkError $e) {
            self::assertStringContainsString('it erases its memory', $e->getMessage());
        }
        $this->pace->wait($state->busyS + 0.01);
        $recorder = $this->recorder();
        self::assertSame(0.0, $recorder->about()->busyS);
        self::assertSame($state->bytes, $recorder->about()->free);
        $this->record(10.0);
        self::assertSame([3], array_keys($recorder->about()->recordings), 'a recording is never taken for another');
    }

    /** What fits is whole; what does not is left out, and the flight goes on. */
    public function testAFullMemoryKeepsWholePages(): void
    {
        $memory = new RecorderMemory($this->world->store->recorderPath(), 20_000);
        $recorder = new MemoryRecorder($memory, '');
        self::fly($recorder, 60.0);
        self::assertTrue($recorder->isFull());
        self::assertLessThan(3000, $memory->free());
        $kept = Recording::read($memory->read(1, 0, 20_000));
        self::assertSame([], $kept->missing);
        self::assertSame(0, $kept->log->clock->samples % 500);
        self::assertCount(1, $kept->log->clock->segments);
        // Nothing more goes in, and another flight has no recording.
        $memory->append(1, str_repeat('x', $memory->free()));
        $next = new MemoryRecorder($memory, '');
        self::fly($next, 5.0);
        self::assertSame(2, $next->number);
        self::assertTrue($next->isFull());
    }

    public function testABoardWithoutMemorySaysSo(): void
    {
        $made = get_object_vars($this->demo->model);
        $made['recorderBytes'] = 0;
        $without = (new \ReflectionClass(BoardModel::class))->newInstanceArgs($made);
        $this->world = new World(
            $this->world->store,
            $without,
            $this->demo->physics,
            Catalogue::loam(),
            $this->pace,
        );
        $this->expectException(LinkError::class);
        $this->expectExceptionMessage('no memory for logs');
        $this->recorder()->about();
    }

    /** Whatever is asked, the board refuses or answers; it neither reads beyond a recording nor falls over. */
    public function testHostileRequestsAreRefused(): void
    {
        $this->record(5.0);
        $long = \strlen($this->held(1));
        $recorder = $this->recorder();
        foreach ([[7, 0, 10], [1, $long, 1], [1, 0, $long + 1], [1, 4_294_967_295, 10], [0, 0, 0]] as [$number, $at, $length]) {
            foreach (['read', 'sum'] as $what) {
                try {
                    $recorder->{$what}($number, $at, $length);
                    self::fail("$what $number $at $length was answered");
                } catch (LinkError $e) {
                    self::assertTrue($e->refused);
                }
            }
        }
        self::assertSame([1], array_keys($recorder->about()->recordings));
    }

    private function recorder(): RecorderClient
    {
        $this->world->move('cable', '1');
        $this->pace->wait(1.0);

        return new RecorderClient($this->client());
    }

    private function fetch(): RecordFetch
    {
        return new RecordFetch($this->recorder());
    }

    private function held(int $number): string
    {
        return $this->world->recorder()->read($number, 0, 1 << 28);
    }

    private function record(float $seconds, float $phase = 0.0): void
    {
        self::fly(new MemoryRecorder($this->world->recorder(), "flight.card: cruise\n"), $seconds, $phase);
    }

    private static function roll(float $t): float
    {
        // The last term is as good as noise: it does not pack.
        return 400 * sin(3.1 * $t) + 150 * sin(40 * $t) + 60 * sin(1.0e5 * $t * $t);
    }

    private static function fly(MemoryRecorder $recorder, float $seconds, float $phase = 0.0): void
    {
        $recorder->begin(['throttle_pct', 'rate_measured_roll_dps'], 1000.0);
        for ($i = 0, $n = (int) (1000 * $seconds); $i < $n; ++$i) {
            $recorder->record([$i / 1000, 40.0, self::roll($i / 1000 + $phase)]);
        }
        $recorder->finish();
    }
}
