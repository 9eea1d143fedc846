<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Storage;

use Ortholex\App\Storage\DiskTrouble;
use Ortholex\Bench\Storage\NotKept;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A full disk, a read-only one and a busy book are told apart from other faults by their codes, however deep they lie. */
final class DiskTroubleTest extends TestCase
{
    /** @return iterable<string, array{int, string|null}> result code of SQLite, what is said */
    public static function codes(): iterable
    {
        yield 'busy' => [5, 'try again in a moment'];
        yield 'locked' => [6, 'try again in a moment'];
        yield 'damaged' => [11, 'The book in /data is damaged'];
        yield 'no book' => [26, 'Bring the last backup back'];
        yield 'read-only' => [8, 'may not write to its book (/data)'];
        yield 'input or output' => [10, 'The disk is full, or a limit was met'];
        yield 'full' => [13, 'The disk is full, or a limit was met'];
        yield 'cannot be opened' => [14, 'The disk is full, or a limit was met'];
        yield 'a constraint' => [19, null];
    }

    #[DataProvider('codes')]
    public function testTheCodeTellsTheCause(int $code, ?string $said): void
    {
        $deep = new \PDOException('whatever it says');
        $deep->errorInfo = ['HY000', $code, 'whatever it says'];
        $e = new \RuntimeException('outside', previous: new \LogicException('between', previous: $deep));
        $found = DiskTrouble::behind($e, '/data')->words ?? null;
        null === $said ? self::assertNull($found) : self::assertStringContainsString($said, (string) $found);
    }

    public function testWhatTheBenchCouldNotKeepIsSaidInItsOwnWords(): void
    {
        $e = new \RuntimeException('outside', previous: NotKept::short('/data/bench/world.json', 12, 40));
        self::assertStringContainsString('Only 12 of 40 bytes of /data/bench/world.json', DiskTrouble::behind($e, '/data')->words ?? '');
        self::assertNull(DiskTrouble::behind(new \RuntimeException('the disk is full, says somebody'), '/data'), 'no sentence decides');
    }

    public function testAFolderIsTriedByWriting(): void
    {
        $folder = sys_get_temp_dir().'/ortholex-probe-'.getmypid();
        self::assertStringContainsString($folder, DiskTrouble::in($folder)->words ?? '', 'there is none');
        mkdir($folder);
        self::assertNull(DiskTrouble::in($folder));
        self::assertSame([], array_diff(scandir($folder) ?: [], ['.', '..']), 'it leaves nothing behind');
        rmdir($folder);
    }
}
