<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

/** Whether a gzip file is whole: a copy that broke off unpacks without a word to the last of what is there (RFC 1952). */
final class GzipEnd
{
    /** What a gzip file begins with. */
    public const MAGIC = "\x1f\x8b";

    private const BLOCK_BYTES = 4096;

    /**
     * @param int $unpacked bytes that came out of it
     *
     * @return bool false for a whole one, and for a file that is no gzip
     */
    public static function isMissing(string $path, int $unpacked): bool
    {
        $file = @fopen($path, 'rb');
        if (false === $file) {
            return false;
        }
        try {
            if (self::MAGIC !== fread($file, 2)) {
                return false;
            }
            // The last four bytes of a whole one are its unpacked size; where they are not, it may still be several, one after the other.
            fseek($file, -4, \SEEK_END);
            $size = unpack('V', (string) fread($file, 4));
            if (false !== $size && $size[1] === ($unpacked & 0xFFFFFFFF)) {
                return false;
            }
            rewind($file);

            return !self::reachesItsEnd($file);
        } finally {
            fclose($file);
        }
    }

    /** @param resource $file */
    private static function reachesItsEnd($file): bool
    {
        $inflate = inflate_init(\ZLIB_ENCODING_GZIP);
        $rest = '';
        while (false !== $inflate) {
            $rest .= (string) fread($file, self::BLOCK_BYTES);
            if ('' === $rest) {
                return false;
            }
            $before = inflate_get_read_len($inflate);
            if (false === @inflate_add($inflate, $rest)) {
                return false;
            }
            if (\ZLIB_STREAM_END !== inflate_get_status($inflate)) {
                $rest = '';
                continue;
            }
            $rest = substr($rest, inflate_get_read_len($inflate) - $before);
            if (self::MAGIC !== substr($rest, 0, 2) && ('' !== $rest || feof($file) || '' === ($rest = (string) fread($file, 2)))) {
                return true;
            }
            $inflate = inflate_init(\ZLIB_ENCODING_GZIP);
        }

        return false;
    }
}
