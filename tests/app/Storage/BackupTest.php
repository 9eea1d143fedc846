<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Storage;

use Ortholex\App\Storage\Backup\Backup;
use Ortholex\App\Storage\Backup\BackupError;
use Ortholex\App\Storage\Backup\Restoring;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Exception\ServiceUnavailableHttpException;
use Symfony\Component\HttpKernel\HttpKernelInterface;

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

    public function testADamagedBookIsNoHindrance(): void
    {
        $this->backup()->keep("$this->folder/kept");
        $book = "$this->folder/data/ortholex.sqlite";
        $cut = substr((string) file_get_contents($book), 0, 50_000);
        foreach (['cut' => $cut, 'no book' => str_repeat('x', 90_000), 'empty' => ''] as $what => $bytes) {
            foreach (['-wal', '-shm'] as $part) {
                @unlink($book.$part);
            }
            file_put_contents($book, $bytes);
            $before = $this->backup()->restore("$this->folder/kept");
            self::assertSame(300, $this->rows('data'), $what);
            self::assertFileExists("$before/ortholex.sqlite");
            (new Filesystem())->remove($before);
        }
    }

    public function testWhileItIsBroughtBackNobodyReadsHalfOfIt(): void
    {
        $restoring = new Restoring("$this->folder/data");
        $restoring->onRequest($this->request());
        $restoring->begin('/kept');
        self::assertStringContainsString('just being brought back', $this->refused($restoring));
        // Its process is gone, and it was not done.
        $mark = "$this->folder/data/.restoring";
        file_put_contents($mark, str_replace((string) getmypid(), '999999999', (string) file_get_contents($mark)));
        self::assertStringContainsString('Bringing back /kept was broken off', $this->refused($restoring));
        file_put_contents($mark, 'x');
        self::assertStringContainsString('Bringing back the backup was broken off', $this->refused($restoring));
        $this->backup()->keep("$this->folder/kept");
        $this->backup()->restore("$this->folder/kept");
        $restoring->onRequest($this->request());
        self::assertFileDoesNotExist($mark);
    }

    public function testItWaitsForWorkThatWritesThere(): void
    {
        $this->backup()->keep("$this->folder/kept");
        $book = $this->book('data');
        $book->exec('CREATE TABLE job (title TEXT, state TEXT, pid INTEGER)');
        $book->exec("INSERT INTO job VALUES ('Long gone', 'running', 999999999), ('Fly a card', 'running', ".getmypid().')');
        try {
            $this->backup()->restore("$this->folder/kept");
            self::fail('It was taken away under it.');
        } catch (BackupError $e) {
            self::assertStringContainsString('“Fly a card” is still under way', $e->getMessage());
        }
        self::assertSame([], glob("$this->folder/data/before-restore-*"));
        self::assertFileDoesNotExist("$this->folder/data/.restoring");
        $book->exec("UPDATE job SET state = 'done'");
        $this->backup()->restore("$this->folder/kept");
        self::assertSame(300, $this->rows('data'));
    }

    private function refused(Restoring $restoring): string
    {
        try {
            $restoring->onRequest($this->request());
            self::fail('It was let in.');
        } catch (ServiceUnavailableHttpException $e) {
            return $e->getMessage();
        }
    }

    private function request(): RequestEvent
    {
        return new RequestEvent(self::createStub(HttpKernelInterface::class), new Request(), HttpKernelInterface::MAIN_REQUEST);
    }

    private function backup(): Backup
    {
        return new Backup("$this->folder/data", 0);
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
