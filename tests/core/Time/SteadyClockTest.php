<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Time;

use Ortholex\Core\Time\SteadyClock;
use PHPUnit\Framework\TestCase;

/** What lasts, lasts as long as it lasts, whatever becomes of the clock on the wall. */
final class SteadyClockTest extends TestCase
{
    private string $file;

    /** @var array{boot: string, sinceS: float, wallS: float} */
    private array $machine = ['boot' => 'a', 'sinceS' => 500.0, 'wallS' => 1_790_000_000.0];

    protected function setUp(): void
    {
        $this->file = sys_get_temp_dir().'/clock-'.bin2hex(random_bytes(6)).'.json';
    }

    protected function tearDown(): void
    {
        @unlink($this->file);
    }

    public function testItBeginsAtTheWallAndGoesOnByTheMachine(): void
    {
        self::assertSame(1_790_000_000.0, $this->clock()->now());
        $this->machine['sinceS'] += 12.5;
        self::assertSame(1_790_000_012.5, $this->clock()->now());
    }

    public function testASetWallClockMovesNothing(): void
    {
        $one = $this->clock();
        $before = $one->now();
        foreach ([-86_400.0, 86_400.0, -1_700_000_000.0] as $jump) {
            $this->machine['wallS'] += $jump;
            $this->machine['sinceS'] += 2.0;
            // Another process, too.
            self::assertSame($before += 2.0, $one->now());
            self::assertSame($before, $this->clock()->now());
        }
    }

    public function testAfterARestartItIsNeverBeforeWhatWasSettled(): void
    {
        $this->clock()->now();
        $this->machine = ['boot' => 'b', 'sinceS' => 3.0, 'wallS' => 1_600_000_000.0];
        self::assertGreaterThanOrEqual(1_790_000_000.0, $this->clock()->now());
        $this->machine = ['boot' => 'c', 'sinceS' => 3.0, 'wallS' => 1_800_000_000.0];
        self::assertSame(1_800_000_000.0, $this->clock()->now());
    }

    public function testWhereNothingTellsOneStartFromTheNextItSeesItByTheTimeSince(): void
    {
        $this->machine['boot'] = '';
        $this->clock()->now();
        $this->machine = ['boot' => '', 'sinceS' => 3.0, 'wallS' => 1_790_000_700.0];
        self::assertSame(1_790_000_700.0, $this->clock()->now());
    }

    public function testADamagedFileAndOneThatCannotBeWrittenAreNoEnd(): void
    {
        foreach (['', '{', '[]', '{"boot":"a","since":"x","offset":"y","at":"z"}', "\xff\xfe"] as $text) {
            file_put_contents($this->file, $text);
            self::assertSame(1_790_000_000.0, $this->clock()->now(), $text);
        }
        $nowhere = new SteadyClock('/proc/no/such/clock.json', fn (): array => $this->machine);
        self::assertSame(1_790_000_000.0, $nowhere->now());
    }

    public function testThisMachineTellsItself(): void
    {
        $clock = new SteadyClock($this->file);
        $before = $clock->now();
        self::assertEqualsWithDelta(microtime(true), $before, 1.0);
        usleep(20_000);
        $passed = (new SteadyClock($this->file))->now() - $before;
        self::assertGreaterThanOrEqual(0.02, $passed);
        self::assertLessThan(5.0, $passed);
    }

    private function clock(): SteadyClock
    {
        return new SteadyClock($this->file, fn (): array => $this->machine);
    }
}
