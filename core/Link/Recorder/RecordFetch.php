<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Recorder;

use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Recorder\RecordingError;

/**
 * Brings a recording over the link into a file: block by block, going on where it was broken off, and held at the end against what the
 * board says that it holds.
 */
final readonly class RecordFetch
{
    /** Compared, and if need be fetched once more, in pieces of so many bytes. */
    private const PIECE = 65_536;

    private const TRIES = 3;

    public function __construct(private RecorderClient $recorder)
    {
    }

    /**
     * @param int                   $bytes    of the recording, as the board says
     * @param string                $path     what is there already is gone on with where it is the beginning of this recording
     * @param \Closure(float): void $progress told the share that is there, 0 to 1
     *
     * @throws LinkError      when the cable is pulled, or the board refuses; what came stays in the file
     * @throws RecordingError when the file cannot be written, or cannot be made the same as what the board holds
     */
    public function into(string $path, int $number, int $bytes, \Closure $progress): void
    {
        $file = @fopen($path, 'c+b') ?: throw RecordingError::notWritten($path);
        try {
            $have = max(0, min($bytes, (int) (fstat($file)['size'] ?? 0)));
            if ($have > 0 && $this->recorder->sum($number, 0, $have) !== self::sumOf($file, 0, $have)) {
                // Of another recording, or torn by a disk that was full.
                $have = 0;
            }
            if (!ftruncate($file, $have)) {
                throw RecordingError::notWritten($path);
            }
            $this->copy($file, $path, $number, $have, $bytes, static fn (int $at) => $progress(0.98 * $at / max(1, $bytes)));
            for ($try = 0; $this->recorder->sum($number, 0, $bytes) !== self::sumOf($file, 0, $bytes); ++$try) {
                if ($try >= self::TRIES) {
                    throw RecordingError::notTheSame($number);
                }
                $this->mend($file, $path, $number, $bytes);
            }
            $progress(1.0);
        } finally {
            fclose($file);
        }
    }

    /**
     * @param resource            $file
     * @param \Closure(int): void $told
     */
    private function copy($file, string $path, int $number, int $from, int $to, \Closure $told): void
    {
        for ($at = $from; $at < $to; $at += $length) {
            $length = min(Message::MOST_PAYLOAD, $to - $at);
            $block = $this->recorder->read($number, $at, $length);
            if (0 !== fseek($file, $at) || @fwrite($file, $block) !== $length || !@fflush($file)) {
                throw RecordingError::notWritten($path);
            }
            $told($at + $length);
        }
    }

    /** @param resource $file each piece that differs comes once more */
    private function mend($file, string $path, int $number, int $bytes): void
    {
        for ($at = 0; $at < $bytes; $at += self::PIECE) {
            $length = min(self::PIECE, $bytes - $at);
            if ($this->recorder->sum($number, $at, $length) !== self::sumOf($file, $at, $length)) {
                $this->copy($file, $path, $number, $at, $at + $length, static function (): void {
                });
            }
        }
    }

    /** @param resource $file */
    private static function sumOf($file, int $at, int $length): int
    {
        $context = hash_init('crc32b');
        fseek($file, $at);
        hash_update_stream($context, $file, $length);

        return (int) hexdec(hash_final($context));
    }
}
