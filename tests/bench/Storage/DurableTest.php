<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Storage;

use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\State\WorldStore;
use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Bench\Storage\NotKept;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;

/** What the bench keeps is whole or is not touched: on a full disk, when killed in the middle, and when a file was broken by others. */
final class DurableTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/ortholex-durable-'.getmypid();
        (new Filesystem())->remove($this->folder);
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        (new Filesystem())->remove($this->folder);
    }

    public function testItIsReplacedWholeAndTheOneBeforeStaysBesideIt(): void
    {
        $file = new DurableFile("$this->folder/a");
        self::assertNull($file->read());
        self::assertNull($file->last());
        $file->write('one');
        self::assertSame('one', $file->read());
        $file->write('two', false);
        self::assertSame('two', $file->read());
        self::assertSame('one', file_get_contents((string) $file->last()));
        $file->write('');
        self::assertSame('', $file->read(), 'nothing is something, too');
        self::assertSame(['a', 'a.last'], array_values(array_diff((array) scandir($this->folder), ['.', '..'])));
    }

    public function testWhereItCannotBeWrittenThatIsSaid(): void
    {
        $this->expectException(NotKept::class);
        $this->expectExceptionMessage("cannot write $this->folder/none/a");
        (new DurableFile("$this->folder/none/a"))->write('x');
    }

    /** @return iterable<string, array{int}> limit on the size of a file, KiB */
    public static function limits(): iterable
    {
        foreach ([0, 1, 2, 3] as $kib) {
            yield "$kib KiB" => [$kib];
        }
    }

    /** A limit on the size of files is met as a full disk is: a part is taken, then no more. */
    #[DataProvider('limits')]
    public function testAFullDiskLosesNothing(int $kib): void
    {
        $file = new DurableFile("$this->folder/a");
        $file->write('what was there');
        $code = '(new Ortholex\Bench\Storage\DurableFile($argv[1]))->write(str_repeat("x", 4000));';
        $said = $this->limited($kib, $code, "$this->folder/a");
        self::assertStringContainsString("of 4000 bytes of $this->folder/a could be written: the disk is full", $said);
        self::assertSame('what was there', $file->read());
        self::assertFileDoesNotExist("$this->folder/a.next");
    }

    #[DataProvider('limits')]
    public function testAWorldThatCannotBeKeptHasNotChanged(int $kib): void
    {
        $store = new WorldStore($this->folder);
        $store->change(static function (WorldState $s): void {
            $s->cable = true;
            $s->kept = ['gain.roll.p' => 31.0];
        });
        $said = $this->limited(
            $kib,
            '(new Ortholex\Bench\State\WorldStore($argv[1]))->change(static function ($s): void {'.
                ' $s->kept = array_fill_keys(range(1, 900), 1.0); });',
            $this->folder,
        );
        self::assertStringContainsString('world.json could be written', $said);
        $now = (new WorldStore($this->folder))->peek();
        self::assertSame(['gain.roll.p' => 31.0], $now->kept);
        self::assertTrue($now->cable);
    }

    public function testAPageOfFlashThatDoesNotGoInIsAnError(): void
    {
        $flash = new FlashFile("$this->folder/flash.bin", 4096);
        $flash->write(0, 'abc');
        $said = $this->limited(
            2,
            '(new Ortholex\Bench\Flash\FlashFile($argv[1], 4096))->write(3000, str_repeat("z", 512));',
            "$this->folder/flash.bin",
        );
        self::assertStringContainsString('Only 0 of 512 bytes', $said);
        self::assertSame('abc', $flash->read(0, 3));
        self::assertSame(4096, filesize("$this->folder/flash.bin"));
    }

    /** @return iterable<string, array{string}> */
    public static function broken(): iterable
    {
        yield 'cut short' => ['{"cable":true,"pack":fal'];
        yield 'empty' => [''];
        yield 'rubbish' => [str_repeat("\0", 512)];
        yield 'something else' => ['[1,2,3]'];
        yield 'a world without its memory' => ['{"cable":true}'];
    }

    #[DataProvider('broken')]
    public function testABrokenWorldIsNeverTakenForANewOne(string $bytes): void
    {
        $store = new WorldStore($this->folder);
        foreach ([30.0, 31.0] as $p) {
            $store->change(static function (WorldState $s) use ($p): void {
                $s->kept = ['gain.roll.p' => $p];
            });
        }
        file_put_contents("$this->folder/world.json", $bytes);
        foreach ([$store->peek(...), static fn () => $store->change(static fn (WorldState $s): bool => $s->cable = true)] as $act) {
            try {
                $act();
                self::fail('it was taken for a world');
            } catch (NotKept $e) {
                self::assertStringContainsString("$this->folder/world.json is broken", $e->getMessage());
                self::assertStringContainsString("mv '$this->folder/world.json.last'", $e->getMessage());
            }
        }
        self::assertSame($bytes, file_get_contents("$this->folder/world.json"), 'it is left as it is');
        rename("$this->folder/world.json.last", "$this->folder/world.json");
        self::assertSame(['gain.roll.p' => 30.0], $store->peek()->kept);
    }

    /** Killed at any moment of many writes, the file is one of those that were written. */
    public function testKilledInTheMiddleItIsStillWhole(): void
    {
        $code = 'for ($i = 0; ; ++$i) { '.
            '(new Ortholex\Bench\Storage\DurableFile($argv[1]))->write(str_repeat(chr(65 + $i % 26), 60000), false); }';
        for ($round = 0; $round < 8; ++$round) {
            $process = new Process([\PHP_BINARY, '-r', $this->code($code), '--', "$this->folder/a"]);
            $process->start();
            for ($i = 0; $i < 500 && !is_file("$this->folder/a"); ++$i) {
                usleep(10_000);
            }
            usleep(3_000 + 1_700 * $round);
            $process->signal(\SIGKILL);
            $process->wait();
            $bytes = (string) (new DurableFile("$this->folder/a"))->read();
            self::assertSame(60000, \strlen($bytes));
            self::assertSame(str_repeat($bytes[0], 60000), $bytes);
        }
    }

    /** What a process says that may write no file larger than this. */
    private function limited(int $kib, string $code, string $argument): string
    {
        $run = 'ulimit -f '.$kib."; trap '' XFSZ; exec ".escapeshellarg(\PHP_BINARY).' -d opcache.enable_cli=0 -r '.
            escapeshellarg($this->code("try { $code } catch (Throwable \$e) { echo \$e->getMessage(); }")).
            ' -- '.escapeshellarg($argument);
        $process = Process::fromShellCommandline($run);
        $process->setTimeout(20);
        $process->run();

        return $process->getOutput().$process->getErrorOutput();
    }

    private function code(string $code): string
    {
        return 'require '.var_export(\dirname(__DIR__, 3).'/vendor/autoload.php', true).'; '.$code;
    }
}
