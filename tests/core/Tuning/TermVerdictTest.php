<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Tuning;

use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\Tuning\TermVerdict;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Where the verdicts on P and D begin: swings ever less even, and noise ever more of it in lines. */
final class TermVerdictTest extends TestCase
{
    private const RATE_HZ = 1000;
    private const SAMPLES = 12000;

    /** @return iterable<string, array{float, TermState}> by how much periods are longer and shorter, in turn */
    public static function swings(): iterable
    {
        yield 'even' => [0.0, TermState::Oscillation];
        yield 'a little uneven' => [0.18, TermState::Oscillation];
        yield 'uneven, still a swing' => [0.28, TermState::Oscillation];
        yield 'no regular swing' => [0.35, TermState::Clean];
    }

    #[DataProvider('swings')]
    public function testASwingIsOneWhileItsPeriodsAreRegular(float $uneven, TermState $state): void
    {
        $p = $rate = [];
        $phase = 0.0;
        for ($i = 0; $i < self::SAMPLES; ++$i) {
            $long = 0 === (int) floor($phase / (2 * \M_PI)) % 2;
            $phase += (2 * \M_PI * 25) / ($long ? 1 + $uneven : 1 - $uneven) / self::RATE_HZ;
            $p[] = 8 * sin($phase);
            $rate[] = 20 * sin($phase + 1);
        }
        $verdict = TermVerdict::of([$p], [array_fill(0, self::SAMPLES, 0.0)], [$rate], [0.0], self::RATE_HZ);
        self::assertSame($state, $verdict->verdict);
        self::assertGreaterThan(0.9, $verdict->share, 'all of the flight says so');
    }

    /** @return iterable<string, array{float, TermState}> size of the lines within the noise, % */
    public static function noises(): iterable
    {
        yield 'noise alone' => [0.0, TermState::Noise];
        yield 'noise with weak lines' => [4.0, TermState::Noise];
        yield 'noise under lines' => [6.0, TermState::Noise];
        yield 'lines with noise' => [9.0, TermState::Clean];
        yield 'lines' => [20.0, TermState::Clean];
    }

    #[DataProvider('noises')]
    public function testDCarriesNoiseWhileItIsFlatAndLinesAreNone(float $lines, TermState $state): void
    {
        $dice = new Lcg(5);
        $p = $d = $rate = [];
        for ($i = 0; $i < self::SAMPLES; ++$i) {
            $t = $i / self::RATE_HZ;
            $noise = $line = 0.0;
            for ($n = 0; $n < 6; ++$n) {
                $noise += 2 * $dice->next();
            }
            foreach ([140, 190, 255, 310] as $k => $hz) {
                $line += sin(2 * \M_PI * $hz * $t + $k);
            }
            $d[] = 3 * $noise + $lines * $line;
            $p[] = 0.5 * sin(2 * \M_PI * 3 * $t);
            $rate[] = 3 * sin(2 * \M_PI * 3 * $t);
        }
        self::assertSame($state, TermVerdict::of([$p], [$d], [$rate], [0.0], self::RATE_HZ)->verdict);
    }
}
