<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Module;

use Ortholex\Core\Position\Nmea\Sentence;

/** What a Plumb G2 is told, in sentences of its maker. */
final readonly class PlumbCommand
{
    /** Rates of its line, the likeliest first. */
    public const BAUDS = [38400, 9600, 115200, 57600, 19200, 4800, 230400];

    public const RATES = [1, 2, 5, 10];
    private const TALKER = 'PPLG';

    public static function baud(int $baud): string
    {
        return self::sentence("BAUD,$baud");
    }

    public static function rate(int $hz): string
    {
        return self::sentence("RATE,$hz");
    }

    public static function sky(Constellations $which): string
    {
        return self::sentence('SKY,'.$which->word());
    }

    public static function keep(): string
    {
        return self::sentence('KEEP');
    }

    public static function ask(): string
    {
        return self::sentence('ASK');
    }

    private static function sentence(string $words): string
    {
        return Sentence::write(self::TALKER.",$words");
    }
}
