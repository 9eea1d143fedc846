<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\DeskNoise;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\DeskNoise\DeskNoise;
use Ortholex\Core\DeskNoise\DeskSaying;
use Ortholex\Core\DeskNoise\DeskStep;
use Ortholex\Core\Fact\Fact;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/**
 * A craft on a desk whose frame is known in closed form: each order of each shaft is a tone, that a resonance of known frequency and
 * damping makes larger by |1 + g / (1 − r² + 2iζr)|, in white noise.
 */
final class DeskNoiseTest extends TestCase
{
    private const RATE_HZ = 3200.0;

    /** Seeded frames: each resonance is found, within 6 %, about its axis and no other; near the ends it may go unnoticed. */
    public function testTheResonanceThatTheShaftsPassIsFound(): void
    {
        $found = $inside = 0;
        for ($seed = 1; $seed <= Cases::many(40, 12); ++$seed) {
            $lcg = new Lcg($seed);
            $hz = 165 + 150 * $lcg->next();
            $axis = Axis::cases()[$seed % 3];
            $desk = self::desk($seed, $axis, $hz, 0.035 + 0.03 * $lcg->next(), 0.25);
            foreach (Axis::cases() as $other) {
                $swell = $desk->swells[$other->value];
                if ($other === $axis) {
                    $found += null !== $swell && abs($swell->hz / $hz - 1) < 0.06 ? 1 : 0;
                    $inside += $hz > 130 ? 1 : 0;
                } else {
                    self::assertNull($swell, "seed $seed: $other->value rings nowhere");
                }
            }
        }
        self::assertGreaterThan(Cases::many(20, 5), $inside);
        self::assertGreaterThanOrEqual($inside, $found);
    }

    public function testAFrameThatRingsNowhereIsNotSaidToRing(): void
    {
        for ($seed = 1; $seed <= Cases::many(30, 8); ++$seed) {
            self::assertSame([], array_filter(self::desk($seed, null)->swells), "seed $seed");
        }
    }

    public function testWhatClimbsIsTheShaftsByTheirOrder(): void
    {
        $desk = self::desk(3, null);
        self::assertEqualsWithDelta(5.0, $desk->shaftHzPerPct, 0.1, 'five turns a second per per cent');
        $orders = [];
        foreach ($desk->ridges['roll'] as $ridge) {
            $orders[] = $desk->order($ridge);
        }
        self::assertContains(1, $orders);
        self::assertContains(2, $orders);
        self::assertSame(DeskSaying::Shaft, self::said($desk->says, DeskSaying::Shaft)?->code);
        self::assertEqualsWithDelta(60 * 5 * 59, self::said($desk->says, DeskSaying::Shaft)->figures['rpm'] ?? 0, 400);
    }

    /** Tones that stand whatever the speed, such as a fan beside the craft, are told from the shafts. */
    public function testWhatStandsIsSaidToStand(): void
    {
        $desk = self::desk(4, null, standsHz: 133.0);
        $said = self::said($desk->says, DeskSaying::Resonance);
        self::assertNotNull($said);
        self::assertEqualsWithDelta(133.0, $said->figures['hz'], 2.0);
    }

    /** ESCs that count turns by a wrong number of magnets tell another speed than the gyro feels. */
    public function testAWrongNumberOfMagnetsIsFoundOut(): void
    {
        self::assertNull(self::said(self::desk(5, null, told: 1.0)->says, DeskSaying::SpeedDiffers));
        $said = self::said(self::desk(5, null, told: 12 / 14)->says, DeskSaying::SpeedDiffers);
        self::assertNotNull($said);
        self::assertEqualsWithDelta(14 / 12, $said->figures['felt'] / $said->figures['told'], 0.02);
    }

    public function testWhatItCannotTellIsSaid(): void
    {
        $desk = self::desk(6, null);
        self::assertEqualsWithDelta(295.0, self::said($desk->cannot, DeskSaying::NotReached)->figures['hz'] ?? 0, 8.0);
        self::assertNotNull(self::said($desk->cannot, DeskSaying::NotInFlight));
        $few = DeskNoise::of(\array_slice(self::steps(7, null), 0, 3), self::RATE_HZ);
        self::assertNotNull(self::said($few->says, DeskSaying::TooFew));
        self::assertNotNull(self::said(DeskNoise::of([], self::RATE_HZ)->says, DeskSaying::TooFew));
    }

    /** Motors that stand, a gyro that says nothing, and one that only hisses: never a resonance, never a division by nothing. */
    public function testSilenceIsSilence(): void
    {
        foreach ([0.0, 0.4] as $noise) {
            $desk = self::desk(8, null, shake: 0.0, noise: $noise);
            self::assertSame([], array_filter($desk->swells));
            self::assertNull(self::said($desk->says, DeskSaying::Resonance));
        }
    }

    /** @param list<Fact> $facts */
    private static function said(array $facts, DeskSaying $code): ?Fact
    {
        foreach ($facts as $fact) {
            if ($fact->code === $code) {
                return $fact;
            }
        }

        return null;
    }

    private static function desk(
        int $seed,
        ?Axis $axis,
        float $hz = 150.0,
        float $damping = 0.03,
        float $gain = 0.0,
        float $standsHz = 0.0,
        float $told = 0.0,
        float $shake = 1.0,
        float $noise = 0.4,
    ): DeskNoise {
        return DeskNoise::of(self::steps($seed, $axis, $hz, $damping, $gain, $standsHz, $told, $shake, $noise), self::RATE_HZ);
    }

    /** @return list<DeskStep> */
    private static function steps(
        int $seed,
        ?Axis $axis,
        float $hz = 150.0,
        float $damping = 0.03,
        float $gain = 0.0,
        float $standsHz = 0.0,
        float $told = 0.0,
        float $shake = 1.0,
        float $noise = 0.4,
    ): array {
        $lcg = new Lcg(1000 + $seed);
        $off = array_map(static fn (): float => 1 + 0.03 * $lcg->next(), range(1, 4));
        $steps = [];
        for ($pct = 7; $pct < 60; $pct += 2) {
            $bursts = [];
            foreach (Axis::cases() as $k => $of) {
                $runs = [];
                for ($burst = 0; $burst < 2; ++$burst) {
                    $tones = 0.0 === $standsHz ? [] : [[2 * \M_PI * $standsHz / self::RATE_HZ, 1.5, 0.0]];
                    foreach ($off as $i => $one) {
                        foreach ([1 => 1.0, 2 => 0.35] as $order => $size) {
                            $f = $order * 5.0 * $pct * $one;
                            // Out of balance, a body on its feet turns in proportion to the speed; the resonance on top.
                            $a = $shake * $size * $pct / 40;
                            $a *= $of === $axis ? self::rings($f / $hz, $damping, $gain) : 1.0;
                            $tones[] = [2 * \M_PI * $f / self::RATE_HZ, $a, 6.28 * $lcg->next() + $i];
                        }
                    }
                    $runs[] = self::sampled($tones, $noise, $lcg);
                }
                $bursts[$of->value] = $runs;
            }
            $steps[] = new DeskStep($pct, 0.0 === $told ? null : 60 * 5.0 * $pct * $told, $bursts);
        }

        return $steps;
    }

    /**
     * @param list<array{float, float, float}> $tones rad a sample, deg/s, rad
     *
     * @return list<float>
     */
    private static function sampled(array $tones, float $noise, Lcg $lcg): array
    {
        $run = [];
        for ($t = 0; $t < 2048; ++$t) {
            $v = $noise * $lcg->normal();
            foreach ($tones as [$w, $a, $phase]) {
                $v += $a * sin($w * $t + $phase);
            }
            $run[] = $v;
        }

        return $run;
    }

    private static function rings(float $ratio, float $damping, float $gain): float
    {
        [$re, $im] = [1 - $ratio ** 2, 2 * $damping * $ratio];
        $size = $re ** 2 + $im ** 2;

        return hypot(1 + $gain * $re / $size, -$gain * $im / $size);
    }
}
