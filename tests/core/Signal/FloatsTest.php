<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Signal;

use Ortholex\Core\Signal\Floats;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Lists of numbers to bytes and back, some dozens at once. */
final class FloatsTest extends TestCase
{
    /** @return iterable<string, array{4|8, string}> */
    public static function sizes(): iterable
    {
        yield 'single' => [4, 'g*'];
        yield 'double' => [8, 'e*'];
    }

    /** @param 4|8 $size */
    #[DataProvider('sizes')]
    public function testTheyAreWhatTheLanguageItselfMakesOfThem(int $size, string $format): void
    {
        $dice = new Lcg(71);
        foreach ([0, 1, 2, 47, 48, 49, 95, 96, 97, 480, 8191, 8193, 20_000] as $count) {
            $values = [];
            for ($i = 0; $i < $count; ++$i) {
                $values[] = (float) $dice->whole(-1_000_000, 1_000_000) / 512 * 10.0 ** $dice->whole(-6, 6);
            }
            $bytes = [] === $values ? '' : pack($format, ...$values);
            $floats = Floats::of($size);
            self::assertSame($bytes, $floats->pack($values), "$count packed");
            $back = [] === $values ? [] : array_values((array) unpack($format, $bytes));
            self::assertSame($back, $floats->unpack($bytes), "$count unpacked");
            // A number that was cut off is none.
            self::assertSame($back, $floats->unpack($bytes.str_repeat("\x40", $size - 1)), "$count and a part");
        }
    }

    /** @param 4|8 $size */
    #[DataProvider('sizes')]
    public function testMeansAreThoseOfTheNumbers(int $size): void
    {
        $dice = new Lcg(72);
        $values = [];
        for ($i = 0; $i < 1_237; ++$i) {
            $values[] = (float) $dice->whole(-4000, 4000) / 8;
        }
        $floats = Floats::of($size);
        $bytes = $floats->pack($values);
        foreach ([1, 2, 3, 4, 5, 7, 8, 16, 24, 47, 48, 49, 50, 96, 100, 1237, 1238] as $factor) {
            self::assertSame(Statistics::decimated($values, $factor), $floats->means($bytes, $factor), "$factor into one");
        }
    }

    /** @param 4|8 $size */
    #[DataProvider('sizes')]
    public function testEachSoManyIsTaken(int $size): void
    {
        $values = array_map(static fn (int $i): float => (float) $i / 4, range(0, 700));
        $floats = Floats::of($size);
        $bytes = $floats->pack($values);
        foreach ([1, 2, 3, 4, 7, 14, 15, 100, 700, 701, 900] as $step) {
            $is = array_values(array_filter($values, static fn (int $i): bool => 0 === $i % $step, \ARRAY_FILTER_USE_KEY));
            self::assertSame($is, $floats->each($bytes, $step), "each $step");
        }
        self::assertSame([], $floats->each('', 3));
    }

    public function testNoNumberIsLostThatIsNone(): void
    {
        $odd = [\NAN, \INF, -\INF, -0.0, 1.0];
        $back = Floats::of(4)->unpack(Floats::of(4)->pack([...$odd, ...array_fill(0, 60, 2.0), ...$odd]));
        self::assertCount(70, $back);
        self::assertNan($back[0]);
        self::assertSame([\INF, -\INF, -0.0, 1.0], \array_slice($back, 66));
        self::assertSame([\INF, -\INF, -0.0, 1.0], \array_slice($back, 1, 4));
    }
}
