<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Book\Craft;
use Ortholex\App\Filters\AxisFigures;
use Ortholex\App\Filters\FilterFigures;
use Ortholex\App\Firmware\FlashMap;
use Ortholex\App\Firmware\ImageExtent;
use Ortholex\App\Gains\GainFindings;
use Ortholex\App\Gains\Predictions;
use Ortholex\App\Gains\Standing;
use Ortholex\App\Logs\CardView;
use Ortholex\App\Motors\Reading\RisenView;
use Ortholex\App\Motors\RiseChart;
use Ortholex\App\Page\DrawnMotor;
use Ortholex\App\Page\FrameDrawing;
use Ortholex\App\Settings\Tray\TrayEffect;
use Ortholex\App\Words\WordsExtension;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Drive\RisingOutput;
use Ortholex\Core\Firmware\FitVerdict;
use Ortholex\Core\LogCheck\Card;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What templates are given to draw is finished: coordinates that stand where they must.
 *
 * @phpstan-import-type Told from Predictions
 * @phpstan-import-type Proposal from Predictions
 */
final class DrawingsTest extends TestCase
{
    /** @return iterable<string, array{Airframe}> */
    public static function frames(): iterable
    {
        yield 'quad' => [Airframe::quadX(0.216)];
        yield 'small quad' => [Airframe::quadX(0.09)];
        yield 'hexa' => [Airframe::hexaX(0.275)];
    }

    #[DataProvider('frames')]
    public function testACraftFillsItsDrawingWithTheNoseUp(Airframe $frame): void
    {
        foreach ([13.0, 48.0, 105.0] as $reach) {
            $d = FrameDrawing::of($frame, $reach);
            self::assertCount(\count($frame->motors), $d->motors);
            $far = max(array_map(static fn (DrawnMotor $m): float => max(abs($m->x), abs($m->y)), $d->motors));
            self::assertEqualsWithDelta($reach, $far, 0.1, 'the farthest motor stands at the rim');
            foreach ($d->motors as $i => $m) {
                $real = $frame->motors[$i];
                self::assertSame($real->place, $m->place);
                // Forward is up the page, right is right.
                self::assertEqualsWithDelta(1000 * $real->x, -$m->y * $d->mmPerUnit, 0.06 * $d->mmPerUnit);
                self::assertEqualsWithDelta(1000 * $real->y, $m->x * $d->mmPerUnit, 0.06 * $d->mmPerUnit);
                self::assertSame((int) round(1000 * $real->x), $m->forwardMm);
                self::assertSame($m->x < -1 ? 'end' : '', $m->anchor());
                self::assertGreaterThan(abs($m->x), abs($m->beside(20)), 'what is written stands outside');
            }
            self::assertEqualsWithDelta($d->widthMm / 2, $d->halfWidth * $d->mmPerUnit, 0.6 + 0.06 * $d->mmPerUnit);
        }
    }

    public function testTheMotorsOfAQuadStandInItsCorners(): void
    {
        $d = FrameDrawing::of(Airframe::quadX(0.2), 100.0);
        $at = array_column(array_map(static fn (DrawnMotor $m): array => [$m->place, $m->x, $m->y], $d->motors), null, 0);
        self::assertSame(['front_right', 100.0, -100.0], $at['front_right']);
        self::assertSame(['rear_left', -100.0, 100.0], $at['rear_left']);
        // The corners of a square with a diagonal of 200 mm are 141 mm apart.
        self::assertSame(141, $d->widthMm);
        self::assertEqualsWithDelta(0.7071, $d->mmPerUnit, 1e-4);
    }

    public function testTheSticksOfACardAreDrawnFromEdgeToEdge(): void
    {
        $card = CardView::of(Card::Cruise, [[-1.0, 1.0, 0.0, 0.0], [0.0, 0.0, 0.0, 0.5], [1.0, -1.0, 0.0, 1.0]]);
        self::assertSame('0,25 80,14 160,3', $card->lines['roll']);
        self::assertSame('0,19 80,30 160,41', $card->lines['pitch']);
        self::assertSame('0,57 80,44 160,31', $card->lines['throttle']);
        self::assertSame(['roll' => '', 'pitch' => '', 'throttle' => ''], CardView::of(Card::Cruise, [])->lines, 'no bench, no sticks');
    }

    /** @return iterable<string, array{int, int, int, int}> beginning and end of the flash, beginning of the image, its first page */
    public static function images(): iterable
    {
        yield 'at the beginning' => [0x08008000, 0x08100000, 0x08008000, 0];
        yield 'two pages on' => [0x08008000, 0x08100000, 0x08009000, 2];
        yield 'within a page' => [0x08008000, 0x08100000, 0x08009123, 2];
        yield 'below the flash' => [0x08008000, 0x08100000, 0x08000000, 0];
    }

    #[DataProvider('images')]
    public function testAnImageIsDrawnWhereItLies(int $from, int $end, int $image, int $first): void
    {
        $craft = self::craft();
        $craft->flashFrom = $from;
        $craft->flashEnd = $end;
        $craft->pageBytes = 2048;
        $map = FlashMap::of($craft, new ImageExtent($image, $image + 8192, 8192, 4, 0, ''), FitVerdict::DoesNotFit);
        self::assertSame(($end - $from) / 2048, $map->pages);
        self::assertSame($first, $map->first);
        self::assertSame(4, $map->count);
        self::assertTrue($map->outside);
        self::assertFalse(FlashMap::of($craft, null, FitVerdict::Fits)->outside);
        self::assertSame(0, FlashMap::of($craft, null, null)->count);
    }

    public function testWithoutABoardTheFlashIsDrawnAllTheSame(): void
    {
        $map = FlashMap::of(self::craft(), new ImageExtent(0x08008000, 0x08010000, 32768, 16, 0, ''), FitVerdict::DoesNotFit);
        self::assertSame(512, $map->pages);
        self::assertSame(0, $map->first);
        self::assertFalse($map->outside, 'nobody knows yet where it belongs');
    }

    public function testTheRiseIsDrawnWithinItsAxes(): void
    {
        $rises = [];
        foreach (['front_left', 'front_right', 'rear_left', 'rear_right'] as $k => $place) {
            foreach ([2.0, 2.5, 3.0, 3.5, 4.0, 4.5, 5.0, 5.5, 6.0] as $pct) {
                $rpm = 700 * $pct + 10 * $k;
                $rises[$place][] = ['pct' => $pct, 'rpm' => [$rpm - 5, $rpm, $rpm + 5, $rpm - 4, $rpm + 4, $rpm - 2, $rpm + 2, $rpm]];
            }
        }
        $chart = RiseChart::of(new RisenView(RisingOutput::of($rises), $rises, null, new \DateTimeImmutable()));
        self::assertSame([2, 3, 4, 5, 6], array_column($chart->columns, 'pct'));
        self::assertSame([60.0, 225.0, 390.0, 555.0, 720.0], array_column($chart->columns, 'x'));
        self::assertSame([350.0, 20.0], [$chart->rows[0]['y'], $chart->rows[4]['y']]);
        self::assertSame(0, $chart->rows[0]['rpm']);
        self::assertCount(4, $chart->motors);
        foreach ($chart->motors as $i => $motor) {
            self::assertSame(40 + 24 * $i, $motor['y']);
            self::assertStringStartsWith('M60 ', $motor['mean']);
            self::assertSame(8, substr_count($motor['mean'], 'L'), 'nine steps');
            self::assertStringEndsWith('Z', $motor['band']);
            preg_match_all('~[ML](-?[\d.]+) (-?[\d.]+)~', $motor['band'], $m);
            self::assertCount(18, $m[0], 'up along the highest, back along the lowest');
            foreach ($m[2] as $y) {
                self::assertGreaterThanOrEqual(20.0, (float) $y);
                self::assertLessThanOrEqual(350.0, (float) $y);
            }
            self::assertFalse($motor['weak']);
        }
        self::assertNotNull($chart->idle);
        self::assertGreaterThanOrEqual(60.0, $chart->idle['x']);
    }

    public function testWithoutARiseItsAxesStand(): void
    {
        $chart = RiseChart::of(null);
        self::assertCount(5, $chart->columns);
        self::assertCount(5, $chart->rows);
        self::assertSame(3000, $chart->rows[4]['rpm']);
        self::assertSame([], $chart->motors);
        self::assertNull($chart->idle);
    }

    public function testFilterFiguresSayWhatChanges(): void
    {
        $bare = new FilterFigures([1.92, 4.35], null, []);
        self::assertSame('The filters delay the rate by 1.9 ms at 30 Hz, and D by 4.3 ms.', $bare->answer());
        $other = new FilterFigures([1.92, 4.35], [2.41, 4.84], []);
        self::assertSame('As staged, the filters delay the rate by 2.4 ms at 30 Hz (now 1.9), and D by 4.8 (now 4.3).', $other->answer());
        $roll = new AxisFigures('roll', 6.0, 0.6, null, null, null);
        $pitch = new AxisFigures('pitch', 8.0, 0.5, null, null, null);
        $now = new FilterFigures([1.92, 4.35], null, [$roll, $pitch]);
        self::assertSame('The filters leave 0.60 / 0.50 deg/s of this log’s noise, and delay by 1.9 ms.', $now->answer());
        $staged = new FilterFigures([1.92, 4.35], [1.1, 3.0], [new AxisFigures('roll', 6.0, 0.6, 0.9, null, null), $pitch]);
        self::assertSame(
            'As staged, the filters leave 0.90 / 0.50 deg/s (now 0.60 / 0.50 deg/s), and delay by 1.1 ms (now 1.9).',
            $staged->answer(),
        );
    }

    /**
     * @param array<string, mixed> $numbers
     * @param Proposal|null        $proposal
     *
     * @return Told
     */
    private static function told(
        ?float $peak = 1.38,
        ?string $verdict = 'overshoots',
        Standing $standing = Standing::AsFlown,
        bool $stable = true,
        ?array $proposal = null,
        array $numbers = ['delay_ms' => 12.8],
    ): array {
        return [
            'measured_peak' => $peak,
            'verdict' => $verdict,
            'modelled_peak' => 1.34,
            'modelled_stable' => true,
            'standing' => $standing->value,
            'step_ms' => 1.0,
            'predicted' => [],
            'stable' => $stable,
            'numbers' => $numbers,
            'predicted_peak' => 1.15,
            'proposal' => $proposal,
            'measured' => [],
        ];
    }

    public function testGainsAreSpokenOfAxisByAxis(): void
    {
        $proposal = ['p' => 33.0, 'i' => 80.0, 'd' => 3.2, 'from_p' => 33.0, 'from_i' => 70.0, 'from_d' => 1.7, 'peak' => 1.08];
        $proposal += ['delay_ms' => 12.5, 'modulus' => 0.58, 'noise' => 1.59, 'step' => [0.0, 1.0]];
        $said = GainFindings::of(
            [
                'roll' => self::told(proposal: $proposal),
                'pitch' => self::told(peak: 1.02, verdict: 'answers cleanly'),
                'yaw' => ['why' => 'The log moved this axis too little.'],
            ],
            'C-0002',
        );
        self::assertSame('Roll overshoots with these gains.', $said->answer);
        self::assertSame(['roll'], $said->overshooting);
        [$roll, $pitch, $yaw] = $said->all;
        self::assertSame('Roll overshoots by 38 %', $roll->title);
        self::assertSame('peak 1.38', $roll->mark);
        self::assertSame('Worked out from C-0002; with the gains flown, the model peaks at 1.34.', $roll->text);
        self::assertSame(['gain.roll.i' => 80.0, 'gain.roll.d' => 3.2], $roll->proposal, 'only what becomes other');
        $better = 'I 70 → 80, D 1.7 → 3.2. It would peak at 1.08, reach 50 % in 12.5 ms and keep a modulus margin of 0.58; 59 % more';
        self::assertStringContainsString($better, $roll->better);
        self::assertSame('Pitch answers cleanly', $pitch->title);
        self::assertSame('', $pitch->better, 'what is clean needs nothing');
        self::assertSame('Yaw: cannot tell', $yaw->title);
    }

    public function testStagedGainsAreSpokenOfFirst(): void
    {
        $axes = ['roll' => self::told(standing: Standing::AsStaged), 'pitch' => self::told(standing: Standing::AsStaged, stable: false)];
        $said = GainFindings::of($axes, 'C-1');
        self::assertSame('As staged, roll would peak at 1.15 instead of 1.38; pitch would oscillate.', $said->answer);
        $stands = GainFindings::of(['yaw' => self::told(peak: null, standing: Standing::AsItStands)], 'C-1');
        self::assertSame('As the craft stands now, not yet flown, yaw would peak at 1.15.', $stands->answer);
        self::assertStringStartsWith('As it stands now: peak 1.15', $stands->all[0]->staged);
        $nothing = GainFindings::of(['roll' => ['why' => 'The log moved this axis too little.']], 'C-1');
        self::assertSame('This flight cannot tell what the gains do.', $nothing->answer);
        self::assertSame('As staged: peak 1.15, 50 % in 12.8 ms.', $said->all[0]->staged);
        self::assertSame('As staged it would oscillate. Do not fly this.', $said->all[1]->staged);
        self::assertStringContainsString('No gains within reach do better', $said->all[0]->better);
    }

    public function testWithoutAPeakNothingIsClaimed(): void
    {
        $yaw = self::told(peak: null, verdict: null, standing: Standing::AsStaged, numbers: []);
        $said = GainFindings::of(['yaw' => $yaw], 'C-1');
        self::assertSame('Yaw was flown', $said->all[0]->title);
        self::assertSame('', $said->all[0]->mark);
        self::assertSame('As staged, yaw would peak at 1.15.', $said->answer);
        self::assertSame('As staged: peak 1.15, 50 % in – ms.', $said->all[0]->staged);
        self::assertSame('This flight cannot tell what the gains do.', GainFindings::of([], 'C-1')->answer);
    }

    public function testAnEffectCountsWhereItCanBeSeen(): void
    {
        self::assertFalse((new TrayEffect('load', '%', 11.0, 11.004, 0))->counts());
        self::assertTrue((new TrayEffect('load', '%', 11.0, 11.3, 0))->counts());
        self::assertTrue((new TrayEffect('peak', '', 1.2, 1.2, 2, always: true))->counts(), 'a step is always worth knowing');
    }

    public function testPlacesAreSaidInOrder(): void
    {
        self::assertSame('', WordsExtension::places([]));
        self::assertSame('front left', WordsExtension::places(['front_left']));
        self::assertSame('front left and rear', WordsExtension::places(['front_left', 'rear']));
        self::assertSame('front left, rear and left', WordsExtension::places(['front_left', 'rear', 'left']));
        self::assertSame('front left, rear, left', WordsExtension::places(['front_left', 'rear', 'left'], ', '));
    }

    private static function craft(): Craft
    {
        return new Craft('curlew', 'Curlew', '5-inch', '', '', []);
    }
}
