<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Storage;

use Ortholex\App\Storage\Backup\Backup;
use Ortholex\App\Storage\Backup\BackupError;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Filesystem\Filesystem;

/** Kept while others write, brought back whole or not at all. */
final class BackupTest extends TestCase
{
    private string $folder = '';

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/ortholex-backup-'.getmypid();
        (new Filesystem())->mkdir("$this->folder/data/bench/curlew");
        (new Filesystem())->mkdir("$this->folder/data/tmp");
        file_put_contents("$this->folder/data/bench/curlew/world.json", '{"cable": true}');
        file_put_contents("$this->folder/data/tmp/passing", 'x');
        touch("$this->folder/data/.made-1");
        $book = $this->book('data');
        $book->exec('PRAGMA journal_mode = WAL; CREATE TABLE log (n INTEGER, data BLOB)');
        for ($n = 0; $n < 300; ++$n) {
            $book->exec("INSERT INTO log VALUES ($n, randomblob(20000))");
        }
    }

    protected function tearDown(): void
    {
        (new Filesystem())->remove($this->folder);
    }

    public function testWhatIsKeptComesBackAndWhatWasThereIsKeptToo(): void
    {
        // Somebody reads and writes all the while: it is of one moment all the same, its log of changes and all.
        $book = $this->book('data');
        $book->exec('BEGIN; INSERT INTO log VALUES (1000, NULL)');
        $bytes = $this->backup()->keep("$this->folder/kept");
        $book->exec('COMMIT');
        self::assertGreaterThan(6_000_000, $bytes);
        self::assertSame(300, $this->rows('kept'), 'what was not committed is not in it');
        self::assertFileExists("$this->folder/kept/.made-1");
        self::assertDirectoryDoesNotExist("$this->folder/kept/tmp");
        $book->exec('DELETE FROM log WHERE n < 250');
        file_put_contents("$this->folder/data/bench/curlew/world.json", '{"cable": false}');
        file_put_contents("$this->folder/data/bench/curlew/later.json", '{}');
        $before = $this->backup()->restore("$this->folder/kept");
        self::assertSame(300, $this->rows('data'));
        self::assertSame('{"cable": true}', file_get_contents("$this->folder/data/bench/curlew/world.json"));
        self::assertFileDoesNotExist("$this->folder/data/bench/curlew/later.json");
        // The connection that was open meanwhile sees what was brought back, and the way back is there.
        self::assertSame(300, $book->querySingle('SELECT COUNT(*) FROM log'));
        $this->backup()->restore($before);
        self::assertSame(51, $this->rows('data'));
        self::assertSame('{"cable": false}', file_get_contents("$this->folder/data/bench/curlew/world.json"));
    }

    public function testWhatIsNoWholeBackupChangesNothing(): void
    {
        $this->backup()->keep("$this->folder/kept");
        foreach (['bench/curlew/world.json' => 'is missing, or not what was kept', 'backup.json' => 'is no backup'] as $path => $says) {
            $was = (string) file_get_contents("$this->folder/kept/$path");
            file_put_contents("$this->folder/kept/$path", substr($was, 0, -1));
            try {
                $this->backup()->restore("$this->folder/kept");
                self::fail('It was taken.');
            } catch (BackupError $e) {
                self::assertStringContainsString($says, $e->getMessage());
            }
            file_put_contents("$this->folder/kept/$path", $was);
        }
        self::assertSame([], glob("$this->folder/data/before-restore-*"));
        try {
            $this->backup()->keep("$this->folder/data/bench");
            self::fail('It was overwritten.');
        } catch (BackupError $e) {
            self::assertStringContainsString('is left as it is', $e->getMessage());
        }
        self::assertSame([], glob("$this->folder/*.making-*"));
    }

    private function backup(): Backup
    {
        return new Backup("$this->folder/data");
    }

    private function book(string $of): \SQLite3
    {
        $book = new \SQLite3("$this->folder/$of/ortholex.sqlite");
        $book->enableExceptions(true);

        return $book;
    }

    private function rows(string $of): mixed
    {
        return $this->book($of)->querySingle('SELECT COUNT(*) FROM log');
    }
}
