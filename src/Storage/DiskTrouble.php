<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Ortholex\Core\World\CannotKeep;

/** Finds out whether something went wrong because nothing more could be written, and says which disk, and what to do. */
final readonly class DiskTrouble
{
    /** Result codes of SQLite. */
    private const BUSY = 5;

    private const LOCKED = 6;
    private const CORRUPT = 11;
    private const NO_BOOK = 26;
    private const READ_ONLY = 8;
    private const INPUT_OUTPUT = 10;
    private const FULL = 13;

    /** Even to be read the book wants a little room beside it. */
    private const CANNOT_OPEN = 14;

    /** @param int $status of HTTP */
    private function __construct(public string $words, public int $status = 507)
    {
    }

    /** A piece that any work needs room for. */
    private const PROBE_BYTES = 1_048_576;

    /** Whether more could be written there; null when it could. What broke off in the middle may have lost its cause on the way. */
    public static function in(string $folder): ?self
    {
        $path = "$folder/.probe-".getmypid();
        $written = is_dir($folder) ? (int) @file_put_contents($path, str_repeat("\0", self::PROBE_BYTES)) : 0;
        @unlink($path);

        return self::PROBE_BYTES === $written
            ? null
            : new self("The disk is full, or a limit was met, in $folder: make room and try again. What was there before is untouched.");
    }

    /** Null where it has another cause. */
    public static function behind(\Throwable $e, string $dataFolder): ?self
    {
        for ($cause = $e; null !== $cause; $cause = $cause->getPrevious()) {
            if ($cause instanceof CannotKeep) {
                return new self($cause->getMessage());
            }
            $code = $cause instanceof \PDOException ? $cause->errorInfo[1] ?? null : null;
            $full = "The disk is full, or a limit was met, where Ortholex keeps its book ($dataFolder). ".
                'Make room, then link the craft and look: what was begun is written down, nothing else was changed.';
            $trouble = match ($code) {
                self::FULL, self::INPUT_OUTPUT, self::CANNOT_OPEN => new self($full),
                self::READ_ONLY => new self("Ortholex may not write to its book ($dataFolder). Check the permissions of that folder."),
                self::BUSY, self::LOCKED => new self(
                    'The book is busy: another program writes to it for longer than can be waited for. '.
                        'Nothing was changed; try again in a moment.',
                    503,
                ),
                self::CORRUPT, self::NO_BOOK => new self(
                    "The book in $dataFolder is damaged and cannot be read. Bring the last backup back (“backup restore FOLDER”); ".
                        'what is there now is kept beside it.',
                    500,
                ),
                default => null,
            };
            if (null !== $trouble) {
                return $trouble;
            }
        }

        return null;
    }
}
