<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Position;

use Ortholex\Core\Position\Module\BaudFinder;
use Ortholex\Core\Position\Module\Constellations;
use Ortholex\Core\Position\Module\PlumbAnswer;
use Ortholex\Core\Position\Module\PlumbCommand;
use PHPUnit\Framework\TestCase;

/** What a position receiver is told and says to it, and how its rate is found. */
final class ModuleTest extends TestCase
{
    /** Checksums reckoned by hand as the exclusive-or of the bytes between $ and *. */
    public function testSentencesAreSpelt(): void
    {
        $sum = static fn (string $body): string => \sprintf(
            '%02X',
            array_reduce(str_split($body), static fn (int $x, string $c): int => $x ^ \ord($c), 0),
        );
        foreach (
            [
                [PlumbCommand::baud(57600), 'PPLG,BAUD,57600'],
                [PlumbCommand::rate(10), 'PPLG,RATE,10'],
                [PlumbCommand::sky(Constellations::Galileo), 'PPLG,SKY,GALILEO'],
                [PlumbCommand::keep(), 'PPLG,KEEP'],
            ] as [$is, $body]
        ) {
            self::assertSame("\$$body*{$sum($body)}\r\n", $is);
        }
    }

    public function testTheLastWholeAnswerCounts(): void
    {
        $say = static fn (string $words): string => \Ortholex\Core\Position\Nmea\Sentence::write("PPLG,$words");
        self::assertNull(PlumbAnswer::in("\$GPGGA,,,,,,0,00,,,M,,M,,*66\r\nrubbish"));
        self::assertTrue(PlumbAnswer::in($say('OK,BAUD'))?->done);
        self::assertFalse(PlumbAnswer::in($say('OK,BAUD').$say('NO,RATE'))?->done);
        self::assertNull(PlumbAnswer::in(substr($say('OK,BAUD'), 0, -4)), 'torn');
        $is = PlumbAnswer::in($say('IS,9600,5,GPS,NOTKEPT'));
        self::assertEquals([9600, 5, Constellations::Gps, false], [$is?->baud, $is?->rate, $is?->sky, $is->kept ?? true]);
        self::assertNull(PlumbAnswer::in($say('IS,9600,5,MOON,KEPT'))?->sky, 'whose satellites that are is not known');
    }

    public function testTheRateIsThatAtWhichMostIsWhole(): void
    {
        $whole = PlumbCommand::ask();
        $finder = BaudFinder::find(static fn (int $baud): string => match ($baud) {
            9600 => $whole.$whole."\$GPGGA,torn\r\n",
            38400 => $whole.str_repeat("\$GPGGA,torn*00\r\n", 5),
            default => 'x',
        });
        self::assertSame(9600, $finder->baud, 'one whole among torn ones is chance');
        self::assertFalse($finder->silent);
        self::assertTrue(BaudFinder::find(static fn (): string => '')->silent);
        self::assertNull(BaudFinder::find(static fn (): string => 'xyz')->baud);
    }
}
