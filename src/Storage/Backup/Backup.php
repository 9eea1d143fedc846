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

    public function __construct(private string $dataFolder)
    {
    }

    /**
     * @return int bytes kept
     *
     * @throws BackupError
     */
    public function keep(string $to): int
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
            self::copyBook("$this->dataFolder/".self::BOOK, "$making/".self::BOOK);
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
        $before = "$this->dataFolder/before-restore-".date('Ymd-His');
        $this->keep($before);
        $files = new Filesystem();
        // The files first: a book that says more than is there would be the worse of the two.
        foreach (self::FOLDERS as $folder) {
            if (is_dir("$from/$folder")) {
                $files->mirror("$from/$folder", "$this->dataFolder/$folder", null, ['override' => true, 'delete' => true]);
            }
        }
        self::copyBook("$from/".self::BOOK, "$this->dataFolder/".self::BOOK);

        return $before;
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
