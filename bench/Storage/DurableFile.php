<?php

declare(strict_types=1);

namespace Ortholex\Bench\Storage;

/**
 * A file that is whole or is not touched: written beside, checked, and put in its place in one step. The one that it takes the place
 * of stays beside it, as the last good one.
 */
final readonly class DurableFile
{
    private const NEXT = '.next';
    private const LAST = '.last';

    public function __construct(public string $path)
    {
    }

    public function exists(): bool
    {
        return is_file($this->path);
    }

    /** Null where there is none. */
    public function read(): ?string
    {
        $bytes = @file_get_contents($this->path);

        return false === $bytes ? null : $bytes;
    }

    /**
     * @param bool $sync whether it must outlast the machine's own power, not only the end of this process
     *
     * @throws NotKept when not all of it could be written; what was there is still there
     */
    public function write(string $bytes, bool $sync = true): void
    {
        $next = $this->path.self::NEXT;
        $file = @fopen($next, 'wb');
        if (false === $file) {
            throw NotKept::noPlace($this->path);
        }
        $written = self::all($file, $bytes);
        $whole = $written === \strlen($bytes) && @fflush($file) && (!$sync || @fsync($file));
        fclose($file);
        if (!$whole || filesize($next) !== \strlen($bytes)) {
            @unlink($next);
            throw NotKept::short($this->path, $written, \strlen($bytes));
        }
        if (is_file($this->path)) {
            @unlink($this->path.self::LAST);
            @link($this->path, $this->path.self::LAST);
        }
        if (!@rename($next, $this->path)) {
            @unlink($next);
            throw NotKept::noPlace($this->path);
        }
    }

    /** Where the one before lies; null when there was none. */
    public function last(): ?string
    {
        return is_file($this->path.self::LAST) ? $this->path.self::LAST : null;
    }

    /**
     * As many bytes as go; a full disk takes a part and says no more.
     *
     * @param resource $file
     */
    public static function all($file, string $bytes): int
    {
        $done = 0;
        while ($done < \strlen($bytes)) {
            $now = @fwrite($file, substr($bytes, $done));
            if (false === $now || 0 === $now) {
                break;
            }
            $done += $now;
        }

        return $done;
    }
}
