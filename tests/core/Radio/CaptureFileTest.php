<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Radio\CaptureFile;
use Ortholex\Core\Radio\RadioFileError;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Captures as people bring them. */
final class CaptureFileTest extends TestCase
{
    private string $path;

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'capture');
    }

    protected function tearDown(): void
    {
        unlink($this->path);
    }

    /** @return iterable<string, array{string}> */
    public static function manners(): iterable
    {
        $rows = [[0.5, 0], [2.25, 1], [9, 0]];
        foreach ([',' => 'commas', ';' => 'semicolons', "\t" => 'tabs'] as $by => $named) {
            $csv = "time_us{$by}level\n";
            foreach ($rows as [$t, $l]) {
                $csv .= "$t$by$l\n";
            }
            yield $named => [$csv];
        }
        yield 'the other way round' => ["level,time_us\n0,0.5\n1,2.25\n0,9\n"];
        yield 'with more columns' => ["sample,time_us,level\n1,0.5,0\n2,2.25,1\n3,9,0\n"];
        yield 'with a mark and other line ends' => ["\xEF\xBB\xBFtime_us,level\r\n0.5,0\r\n2.25,1\r\n9,0\r\n"];
        yield 'with comments and empty lines' => ["# analyser 3\n\ntime_us,level\n# begins\n0.5,0\n\n2.25,1\n9,0"];
        yield 'quoted, in capitals' => ["\"TIME_US\",\"LEVEL\"\n\"0.5\",\"0\"\n2.25,1\n9,0\n"];
        yield 'levels told twice' => ["time_us,level\n0.5,0\n1.0,0\n2.25,1\n9,0\n"];
    }

    #[DataProvider('manners')]
    public function testChangesAreReadHoweverTheyAreWritten(string $csv): void
    {
        file_put_contents($this->path, $csv);
        $edges = CaptureFile::edges($this->path);
        self::assertSame([0.5, 2.25, 9.0], $edges->timesUs);
        self::assertSame([0, 1, 0], $edges->levels);
        file_put_contents($this->path, gzencode($csv));
        self::assertSame($edges->timesUs, CaptureFile::edges($this->path)->timesUs);
    }

    public function testAWireOnWhichNothingChangedIsNoFault(): void
    {
        file_put_contents($this->path, "time_us,level\n");
        self::assertSame(0, CaptureFile::edges($this->path)->count());
    }

    public function testSticksAreReadByTheirNumbers(): void
    {
        file_put_contents($this->path, "ch3_us,time_s,note,ch12_us\n1500,0,1,1000\n1510,0.02,1,1001\n");
        $history = CaptureFile::sticks($this->path);
        self::assertSame([0.0, 0.02], $history->timesS);
        self::assertSame([3 => [1500.0, 1510.0], 12 => [1000.0, 1001.0]], $history->channels);
        self::assertEqualsWithDelta(0.02, $history->step(), 1e-9);
        self::assertEqualsWithDelta(0.02, $history->seconds(), 1e-9);
        self::assertSame([], $history->channel(4));
    }

    /** @return iterable<string, array{string, string}> file, and what is said of it */
    public static function unsound(): iterable
    {
        yield 'empty' => ['', 'no line that names its columns'];
        yield 'no names' => ["1,0\n2,1\n", 'no line that names its columns'];
        yield 'a level of two' => ["time_us,level\n1,2\n", 'Line 2: a level is 0 or 1'];
        yield 'a torn row' => ["time_us,level\n1,0\n2\n", 'Line 3: level is “”'];
        yield 'not a number' => ["time_us,level\n1,0\nsoon,1\n", 'Line 3: time_us is “soon”'];
        yield 'infinite' => ["time_us,level\n1e999,0\n", 'Line 2: time_us is “1e999”'];
        yield 'back in time' => ["time_us,level\n10,0\n\n9,1\n", 'Line 4: time goes back from 10 to 9'];
        yield 'binary' => ["time_us,level\n1,0\n\x00\x07", 'Line 3 holds binary bytes'];
    }

    #[DataProvider('unsound')]
    public function testWhatIsWrongIsSaidWithItsLine(string $csv, string $why): void
    {
        file_put_contents($this->path, $csv);
        $this->expectException(RadioFileError::class);
        $this->expectExceptionMessage($why);
        CaptureFile::edges($this->path);
    }

    public function testATornGzipIsSaidToBeTorn(): void
    {
        $csv = "time_us,level\n";
        for ($i = 0; $i < 4000; ++$i) {
            $csv .= ($i * 7.31).','.($i % 2)."\n";
        }
        file_put_contents($this->path, substr((string) gzencode($csv), 0, 3000));
        $this->expectException(RadioFileError::class);
        CaptureFile::edges($this->path);
    }

    public function testAFolderIsNoCapture(): void
    {
        $this->expectException(RadioFileError::class);
        CaptureFile::edges(sys_get_temp_dir());
    }
}
