<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Video;

use Ortholex\Core\Video\ChannelPlan;
use Ortholex\Core\Video\Channels;
use Ortholex\Core\Video\Heat;
use Ortholex\Core\Video\Heron;
use Ortholex\Core\Video\PlaceLaw;
use Ortholex\Core\Video\VideoError;
use Ortholex\Core\Video\VideoFlaw;
use PHPUnit\Framework\TestCase;

final class VideoTest extends TestCase
{
    /**
     * Clashes, closest two and frequencies for 2 to 8 pilots of 40 channels, 5648 MHz and every 7 MHz: all combinations counted out by a
     * program in C that shares nothing with ours but the rule (100 million for 8 pilots, 3.4 s).
     */
    private const COUNTED_OUT = [
        2 => [0, 273.0, [5648.0, 5921.0]],
        3 => [0, 126.0, [5648.0, 5774.0, 5921.0]],
        4 => [0, 84.0, [5648.0, 5732.0, 5837.0, 5921.0]],
        5 => [0, 49.0, [5648.0, 5697.0, 5767.0, 5816.0, 5907.0]],
        6 => [0, 42.0, [5648.0, 5690.0, 5753.0, 5795.0, 5879.0, 5921.0]],
        7 => [2, 21.0, [5648.0, 5669.0, 5711.0, 5795.0, 5837.0, 5858.0, 5900.0]],
        8 => [3, 7.0, [5648.0, 5655.0, 5697.0, 5704.0, 5795.0, 5837.0, 5844.0, 5914.0]],
    ];

    public function testTheSearchFindsWhatAllCombinationsFind(): void
    {
        foreach (self::COUNTED_OUT as $pilots => [$clashes, $closest, $mhz]) {
            $plan = ChannelPlan::best(Heron::mhz(), $pilots);
            self::assertSame([$clashes, $closest, $mhz], [$plan->clashes(), $plan->closestMhz(), $plan->mhz()]);
            self::assertSame($clashes, Channels::of($mhz)->clashes());
        }
    }

    /** Uneven offers, with some taken by others. */
    public function testTheSameWithOthersInTheAir(): void
    {
        mt_srand(77);
        for ($case = 0; $case < 12; ++$case) {
            $offer = array_values(array_unique(array_map(static fn (): float => (float) mt_rand(5650, 5920), range(1, 13))));
            $taken = [(float) mt_rand(5650, 5920), (float) mt_rand(5650, 5920)];
            $offer = array_values(array_diff($offer, $taken));
            sort($offer);
            $pilots = 2 + $case % 3;
            $plan = ChannelPlan::best($offer, $pilots, $taken);
            $best = [\PHP_INT_MAX, 0.0];
            foreach (self::combinations($offer, $pilots) as $set) {
                $all = Channels::of([...$taken, ...$set]);
                if ([$all->clashes(), -$all->closest()] < [$best[0], -$best[1]]) {
                    $best = [$all->clashes(), $all->closest()];
                }
            }
            self::assertSame($best, [$plan->clashes(), $plan->closestMhz()]);
            self::assertSame($best[0], Channels::of([...$taken, ...$plan->mhz()])->clashes());
        }
    }

    public function testProductsAndNeighbours(): void
    {
        $channels = Channels::of([5700.0, 5760.0, 5820.0]);
        self::assertSame([], $channels->neighbours());
        // 2·5760 − 5700 = 5820, and 2·5760 − 5820 = 5700.
        self::assertSame([[5760.0, 5700.0, 5820.0, 5820.0], [5760.0, 5820.0, 5700.0, 5700.0]], $channels->products());
        self::assertSame([[5700.0, 5736.0]], Channels::of([5736.0, 5700.0])->neighbours());
        self::assertSame([], Channels::of([5737.0, 5700.0])->neighbours());
        self::assertTrue(Channels::of([5700.0, 5760.0])->clashesWith(5836.9));
        self::assertFalse(Channels::of([5700.0, 5760.0])->clashesWith(5837.0));
        $this->expectException(VideoError::class);
        ChannelPlan::best([5700.0], 2);
    }

    public function testHeat(): void
    {
        $heat = Heat::of(20.0, 40.0, 90.0, 85.0);
        self::assertEqualsWithDelta(20 + 80 * (1 - exp(-1)), $heat->at(90.0, 2.0), 1e-9);
        // 85 °C of 100: 65/80 of the way, −90·ln(15/80).
        self::assertEqualsWithDelta(-90 * log(15 / 80), $heat->untilLimit(2.0), 1e-9);
        self::assertNull($heat->untilLimit(1.6), 'it never gets there');
        self::assertSame(0.0, $heat->untilLimit(2.0, 90.0));
        $readings = array_map(static fn (int $t): array => [(float) $t, $heat->at($t, 1.5)], [5, 20, 40, 60]);
        $fitted = Heat::fitted($readings, 20.0, 1.5, 85.0);
        self::assertNotNull($fitted);
        self::assertEqualsWithDelta(40.0, $fitted->kPerW, 1.5);
        self::assertEqualsWithDelta(90.0, $fitted->tauS, 5.0);
    }

    public function testLawsOfPlaces(): void
    {
        $table = ['Here' => ['bands' => [[5725, 5875, 25], [5800, 5810, 100]], 'source' => 'a law']];
        $law = PlaceLaw::table($table)['Here'];
        self::assertSame([0.0, 25.0, 100.0, 0.0], array_map($law->mostMw(...), [5700.0, 5725.0, 5805.0, 5875.1]));
        self::assertSame([5725.0], $law->allowed([5700.0, 5725.0, 5900.0]));
        $bad = [
            [[], VideoFlaw::NoPlaces],
            ['x', VideoFlaw::NoPlaces],
            [['X' => []], VideoFlaw::NoSource],
            [['X' => ['bands' => [[5800, 5700, 1]], 'source' => 's']], VideoFlaw::BadBand],
            [['X' => ['bands' => [[5725, 5875, 25]]]], VideoFlaw::NoSource],
        ];
        foreach ($bad as [$rows, $why]) {
            try {
                PlaceLaw::table($rows);
                self::fail(json_encode($rows, \JSON_THROW_ON_ERROR));
            } catch (VideoError $e) {
                self::assertSame($why, $e->fact()->code);
            }
        }
    }

    /**
     * @param list<float> $of
     *
     * @return iterable<list<float>>
     */
    private static function combinations(array $of, int $count): iterable
    {
        if (0 === $count) {
            yield [];

            return;
        }
        foreach ($of as $i => $one) {
            foreach (self::combinations(\array_slice($of, $i + 1), $count - 1) as $rest) {
                yield [$one, ...$rest];
            }
        }
    }
}
