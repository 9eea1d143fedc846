<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Nmea;

use Ortholex\Core\Position\NmeaScan;

/** One whole sentence of NMEA 0183, taken apart at its commas. */
final readonly class Sentence
{
    /** Longer than the standard's 82, as newer modules are; a line beyond this is none. */
    private const LONGEST = 160;

    /** @param list<string> $fields behind the address */
    private function __construct(public string $talker, public string $type, public array $fields)
    {
    }

    /** Null for anything but a whole sentence with its checksum. */
    public static function in(string $line): ?self
    {
        $line = trim($line);
        $from = strrpos($line, '$');
        if (false === $from || \strlen($line) - $from > self::LONGEST) {
            return null;
        }
        if (
            1 !== preg_match(
                '~^\$([A-Z][A-Z0-9]{2,8})((?:,[\x20-\x23\x25-\x29\x2B-\x7E]*)?)\*([0-9A-Fa-f]{2})$~',
                substr($line, $from),
                $m,
            )
        ) {
            return null;
        }
        if (NmeaScan::checksum($m[1].$m[2]) !== strtoupper($m[3])) {
            return null;
        }
        // A maker's own sentence begins with P; its talker is the maker.
        $own = 'P' === $m[1][0];

        return new self(
            $own ? 'P' : substr($m[1], 0, 2),
            $own ? substr($m[1], 1) : substr($m[1], 2),
            '' === $m[2] ? [] : explode(',', substr($m[2], 1)),
        );
    }

    public static function write(string $body): string
    {
        return '$'.$body.'*'.NmeaScan::checksum($body)."\r\n";
    }

    public function text(int $field): string
    {
        return $this->fields[$field] ?? '';
    }

    /** Null where it is empty or no plain number. */
    public function number(int $field): ?float
    {
        $text = $this->text($field);

        return 1 === preg_match('~^-?\d{1,9}(\.\d{0,9})?$~', $text) ? (float) $text : null;
    }

    /** Seconds of the day; null where it does not stand there. */
    public function timeS(int $field): ?float
    {
        if (1 !== preg_match('~^(\d\d)(\d\d)(\d\d(?:\.\d{1,6})?)$~', $this->text($field), $m)) {
            return null;
        }

        return $m[1] < 24 && $m[2] < 60 && $m[3] < 61 ? 3600 * (int) $m[1] + 60 * (int) $m[2] + (float) $m[3] : null;
    }

    /**
     * Degrees from degrees and minutes with a hemisphere.
     *
     * @param string $sides positive and negative letter
     */
    public function degrees(int $field, string $sides, int $most): ?float
    {
        $wide = 90 === $most ? 2 : 3;
        if (1 !== preg_match("~^(\\d{{$wide}})(\\d\\d(?:\\.\\d{1,9})?)$~", $this->text($field), $m) || $m[2] >= 60) {
            return null;
        }
        $side = strpos($sides, $this->text($field + 1));
        $deg = (int) $m[1] + (float) $m[2] / 60;

        return 1 === \strlen($this->text($field + 1)) && false !== $side && $deg <= $most ? (0 === $side ? $deg : -$deg) : null;
    }
}
