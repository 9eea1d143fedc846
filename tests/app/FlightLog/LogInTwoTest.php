<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\FlightLog;

use Ortholex\App\Work\Process\SideBySide;
use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\BadStretch;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Together\OneByOne;
use Ortholex\Core\Together\Together;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A long log read from its beginning and from its middle at the same time says what it says read in one go, whatever is wrong with it. */
final class LogInTwoTest extends TestCase
{
    private const ROWS = 44_000;

    private string $path = '';

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'two');
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
    }

    /** @return iterable<array{string}> what may be with a file */
    public static function manners(): iterable
    {
        yield ['nothing'];
        yield ['no end of line at the end'];
        yield ['carriage returns'];
        yield ['torn at the end'];
        yield ['a stretch without numbers across the middle'];
        yield ['rows of other lengths all over'];
        yield ['more bad places than are kept, all before the middle'];
        yield ['blank lines across the middle'];
        yield ['rows missing on both sides of it'];
        yield ['the clock set back in the second half'];
        yield ['a line of more than a megabyte in the middle'];
        yield ['a line of more than a megabyte in the first half'];
        yield ['gzip'];
        yield ['gzip without its end'];
    }

    #[DataProvider('manners')]
    public function testItSaysTheSame(string $what): void
    {
        file_put_contents($this->path, self::file($what));
        $whole = self::told(LogReader::readFile($this->path));
        foreach ([new OneByOne(), new SideBySide()] as $together) {
            self::assertSame($whole, self::told(LogReader::readFile($this->path, together: $together)), $together::class);
        }
    }

    private static function file(string $what): string
    {
        $lines = self::lines();
        // The cut falls behind the first end of a line past the middle.
        $middle = intdiv(self::ROWS, 2);
        switch ($what) {
            case 'a stretch without numbers across the middle':
                for ($row = $middle - 400; $row < $middle + 400; ++$row) {
                    $lines[$row] = str_replace(',', ',x', $lines[$row]);
                }
                break;
            case 'rows of other lengths all over':
                for ($row = 5; $row < self::ROWS; $row += 331) {
                    $lines[$row] .= 0 === $row % 2 ? ',7' : "\n# a word in between\n";
                }
                break;
            case 'more bad places than are kept, all before the middle':
                for ($row = 5; $row < 900; $row += 3) {
                    $lines[$row] = 'nothing';
                }
                break;
            case 'blank lines across the middle':
                for ($row = $middle - 60; $row < $middle + 60; ++$row) {
                    $lines[$row] .= "\n\n";
                }
                break;
            case 'rows missing on both sides of it':
                array_splice($lines, $middle - 200, 400);
                break;
            case 'the clock set back in the second half':
                array_splice($lines, 30_000, null, \array_slice($lines, 1, 15_000));
                break;
            case 'a line of more than a megabyte in the middle':
                $lines[$middle] = str_repeat('1,', 700_000);
                break;
            case 'a line of more than a megabyte in the first half':
                $lines[700] = str_repeat('8', 1_300_000);
        }
        $csv = implode("\n", $lines)."\n";

        return match ($what) {
            'no end of line at the end' => rtrim($csv, "\n"),
            'carriage returns' => str_replace("\n", "\r\n", $csv),
            'torn at the end' => substr($csv, 0, -11),
            'gzip' => (string) gzencode($csv, 1),
            'gzip without its end' => substr((string) gzencode($csv, 1), 0, -90_000),
            default => $csv,
        };
    }

    public function testAStretchAcrossTheMiddleIsOneStretch(): void
    {
        $lines = self::lines();
        for ($row = 15_000; $row < 30_000; ++$row) {
            $lines[$row] = 'nothing';
        }
        file_put_contents($this->path, implode("\n", $lines));
        $bad = LogReader::readFile($this->path, together: new SideBySide())->badRows;
        self::assertSame(15_000, $bad->count);
        self::assertSame([[15_001, 15_000]], array_map(static fn (BadStretch $s): array => [$s->line, $s->count], $bad->places));
        self::assertTrue($bad->places[0]->reason->is(BadRowReason::WrongCells));
    }

    public function testItIsReadInTwoProcessesAndTheOtherHalfHereWhereItsProcessDies(): void
    {
        file_put_contents($this->path, implode("\n", self::lines()));
        $dying = new class implements Together {
            /** @var list<string> */
            public array $parts = [];

            public function all(array $parts): array
            {
                $this->parts = array_keys($parts);
                $mine = getmypid();

                return (new SideBySide())->all(
                    array_map(
                        static fn (\Closure $part): \Closure => static function () use ($part, $mine): array {
                            $done = $part();
                            if (getmypid() !== $mine) {
                                // It has written all it had by then.
                                posix_kill((int) getmypid(), \SIGKILL);
                            }

                            return $done;
                        },
                        $parts,
                    ),
                );
            }
        };
        self::assertSame(self::told(LogReader::readFile($this->path)), self::told(LogReader::readFile($this->path, together: $dying)));
        self::assertCount(2, $dying->parts, 'it was read in two');
    }

    public function testWhoStopsItStopsBothHalves(): void
    {
        file_put_contents($this->path, implode("\n", self::lines()));
        $shares = [];
        $stop = static function (float $share) use (&$shares): void {
            $shares[] = $share;
            if ($share > 0.4) {
                throw new \DomainException('stopped by hand');
            }
        };
        try {
            LogReader::readFile($this->path, progress: $stop, together: new SideBySide());
            self::fail('It was to stop.');
        } catch (\Throwable $e) {
            self::assertSame('stopped by hand', $e->getMessage());
        }
        $sorted = $shares;
        sort($sorted);
        self::assertSame($sorted, $shares, 'told share by share');
        self::assertSame(-1, pcntl_waitpid(-1, $status, \WNOHANG), 'no process is left');
    }

    public function testTheBoundOnItsSizeHoldsAsWell(): void
    {
        file_put_contents($this->path, implode("\n", self::lines()));
        $this->expectExceptionMessage(LogError::tooLarge(1)->getMessage());
        LogReader::readFile($this->path, mostBytes: 1_000_000, together: new SideBySide());
    }

    /** @return list<string> of a log of more than two megabytes */
    private static function lines(): array
    {
        $lines = ['time_s,setpoint_roll_dps,rate_measured_roll_dps,rate_measured_pitch_dps,throttle_pct,output_front_right_pct,battery_v'];
        for ($i = 0; $i < self::ROWS; ++$i) {
            $set = 200 * sin($i / 90);
            $row = [$i / 1000, $set, $set - $i % 9, $i % 17 / 7, 40 + $i % 5, 50 - $i % 3, 15.1];
            $lines[] = vsprintf('%.4F,%.3F,%.3F,%.3F,%.2F,%.2F,%.3F', $row);
        }

        return $lines;
    }

    /** @return array<string, mixed> all that a log says, its numbers as a sum of their bytes */
    private static function told(FlightLog $log): array
    {
        return [
            'clock' => [$log->clock->rateHz, $log->clock->samples],
            'segments' => array_map('get_object_vars', $log->clock->segments),
            'faults' => array_map(static fn (object $f): string => serialize($f), $log->clock->faults),
            'numbers' => array_map('md5', $log->packed()),
            'bad' => $log->badRows->toArray(),
            'left out' => $log->leftOut,
            'settings' => $log->settings,
        ];
    }
}
