<?php

declare(strict_types=1);

namespace Ortholex\App\Storage\Backup;

use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Finder\Finder;

/**
 * The whole data folder, kept in another one and brought back, while a server runs on it: the book by SQLite's own online backup, and
 * beside it every file that is not only passing through, each with its hash.
 */
final readonly class Backup
{
    private const BOOK = 'ortholex.sqlite';
    private const LIST = 'backup.json';

    /** What is kept; locks, uploads under way, logs of the server and what passes through are not. */
    private const FOLDERS = ['bench', 'images', 'recorder', 'shelf', 'shelf-escs', 'shelf-chips', 'fonts', 'logs', 'video'];

    /** For whoever writes meanwhile. */
    private const WAIT_MS = 10_000;

    /** @param int $lastPagesUs for pages that are just being put together when a backup is brought back */
    public function __construct(private string $dataFolder, private int $lastPagesUs = 1_000_000)
    {
    }

    /**
     * @param bool $damaged whether a book that cannot be read is kept as it is
     *
     * @return int bytes kept
     *
     * @throws BackupError
     */
    public function keep(string $to, bool $damaged = false): int
    {
        $files = new Filesystem();
        if (file_exists($to) && (!is_dir($to) || (new Finder())->in($to)->ignoreDotFiles(false)->hasResults())) {
            throw BackupError::because("There is something at $to already, and it is left as it is. Name a folder that is not there yet.");
        }
        if (!is_file("$this->dataFolder/".self::BOOK)) {
            throw BackupError::because("There is no book in $this->dataFolder.");
        }
        $making = "$to.making-".getmypid();
        try {
            $files->mkdir($making, 0o700);
            $this->takeBook("$making/".self::BOOK, $damaged);
            $this->copyFiles($this->dataFolder, $making);
            $list = self::hashes($making);
            $files->dumpFile("$making/".self::LIST, (string) json_encode(['at' => date('c'), 'files' => $list], \JSON_PRETTY_PRINT));
            if (is_dir($to)) {
                rmdir($to);
            }
            $files->rename($making, $to);
        } catch (BackupError $e) {
            throw $e;
        } catch (\Throwable $e) {
            throw BackupError::because("It could not be kept in $to: {$e->getMessage()}");
        } finally {
            $files->remove($making);
        }

        return array_sum(array_map(static fn (string $path): int => (int) filesize("$to/$path"), array_keys($list)));
    }

    /**
     * Puts the data folder back to what a backup holds; what is there now is kept beside it first.
     *
     * @return string where what was there before is kept
     *
     * @throws BackupError when it is not whole; then nothing is changed
     */
    public function restore(string $from): string
    {
        $list = json_decode((string) @file_get_contents("$from/".self::LIST), true);
        $named = \is_array($list) && \is_array($list['files'] ?? null) ? $list['files'] : null;
        if (null === $named || !isset($named[self::BOOK])) {
            throw BackupError::because("$from is no backup: it has no sound ".self::LIST.'.');
        }
        $is = self::hashes($from);
        foreach ($named as $path => $hash) {
            if (($is[$path] ?? '') !== $hash) {
                throw BackupError::because("The backup is not whole: $path is missing, or not what was kept. Nothing was changed.");
            }
        }
        $restoring = new Restoring($this->dataFolder);
        $restoring->begin($from);
        try {
            usleep($this->lastPagesUs);
            $this->demandRest();
            $before = "$this->dataFolder/before-restore-".(new \DateTimeImmutable())->format('Ymd-His-u');
            $this->keep($before, damaged: true);
        } catch (BackupError $e) {
            $restoring->end();
            throw $e;
        }
        // What breaks off from here leaves the mark: it is half of one and half of the other.
        $files = new Filesystem();
        foreach (self::FOLDERS as $folder) {
            if (is_dir("$from/$folder")) {
                $files->mirror("$from/$folder", "$this->dataFolder/$folder", null, ['override' => true, 'delete' => true]);
            }
        }
        $this->putBook("$from/".self::BOOK);
        $restoring->end();

        return $before;
    }

    /**
     * Long work writes to the folder as well.
     *
     * @throws BackupError while some is under way
     */
    private function demandRest(): void
    {
        try {
            $book = new \SQLite3("$this->dataFolder/".self::BOOK, \SQLITE3_OPEN_READONLY);
            $book->enableExceptions(true);
            $found = $book->query("SELECT title, pid FROM job WHERE state = 'running' AND pid IS NOT NULL");
        } catch (\Exception) {
            return; // It cannot be read, which is why a backup is brought back.
        }
        while (false !== $found && false !== ($job = $found->fetchArray(\SQLITE3_ASSOC))) {
            if (\is_int($job['pid']) && posix_kill($job['pid'], 0)) {
                $title = \is_string($job['title']) ? $job['title'] : 'work';
                throw BackupError::because("“{$title}” is still under way. Wait for it, or cancel it. Nothing was changed.");
            }
        }
    }

    /** @throws BackupError */
    private function takeBook(string $to, bool $damaged): void
    {
        $book = "$this->dataFolder/".self::BOOK;
        try {
            self::copyBook($book, $to);
        } catch (BackupError $e) {
            if (!$damaged || !copy($book, $to)) {
                throw $e;
            }
        }
    }

    /** @throws BackupError */
    private function putBook(string $from): void
    {
        $book = "$this->dataFolder/".self::BOOK;
        try {
            self::copyBook($from, $book);
        } catch (BackupError) {
            // What is there is no book any more: nothing can be written into it, and nobody reads it.
            foreach (['', '-wal', '-shm'] as $part) {
                @unlink($book.$part);
            }
            self::copyBook($from, $book);
        }
    }

    private function copyFiles(string $from, string $to): void
    {
        $files = new Filesystem();
        foreach (self::FOLDERS as $folder) {
            if (is_dir("$from/$folder")) {
                $files->mirror("$from/$folder", "$to/$folder");
            }
        }
        foreach (glob("$from/.made-*") ?: [] as $mark) {
            $files->copy($mark, "$to/".basename($mark));
        }
    }

    /** @throws BackupError */
    private static function copyBook(string $from, string $to): void
    {
        try {
            $source = new \SQLite3($from, \SQLITE3_OPEN_READONLY);
            $target = new \SQLite3($to);
            $source->enableExceptions(true);
            $target->enableExceptions(true);
            $source->busyTimeout(self::WAIT_MS);
            $target->busyTimeout(self::WAIT_MS);
            $done = $source->backup($target);
            $target->close();
            $source->close();
        } catch (\Exception $e) {
            throw BackupError::because("The book could not be copied to $to: {$e->getMessage()}");
        }
        if (!$done) {
            throw BackupError::because("The book could not be copied to $to.");
        }
    }

    /** @return array<string, string> SHA-256 by path */
    private static function hashes(string $folder): array
    {
        $hashes = [];
        foreach ((new Finder())->files()->in($folder)->ignoreDotFiles(false)->sortByName() as $file) {
            if (self::LIST !== $file->getRelativePathname() && !str_starts_with($file->getFilename(), self::BOOK.'-')) {
                $hashes[$file->getRelativePathname()] = (string) hash_file('sha256', $file->getPathname());
            }
        }

        return $hashes;
    }
}
