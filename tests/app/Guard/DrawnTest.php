<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Guard;

use Ortholex\App\LinkLoss\LossDrawing;
use Ortholex\App\LinkLoss\PathPlot;
use Ortholex\App\LinkLoss\SinkPlot;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\SinkSpeed;
use Ortholex\Core\LinkLoss\Stage;
use PHPUnit\Framework\TestCase;

/** The drawings of sheet 32: what is drawn where, and that what is dragged comes back as what was meant. */
final class DrawnTest extends TestCase
{
    public function testPlacesOnTheAxisOfTimeComeBackAsSeconds(): void
    {
        foreach ([0.2, 0.5, 1.0, 3.3, 10.0] as $hold) {
            $drawing = new LossDrawing($this->plan($hold, 'descend', 30.0), 40.0);
            $scale = $drawing->scale();
            $share = ($drawing->holdX - $scale['left']) / ($scale['right'] - $scale['left']);
            $seconds = $scale['from'] * ($scale['to'] / $scale['from']) ** $share;
            self::assertEqualsWithDelta($hold, $seconds, 0.01 * $hold);
            $pct = (100 * ($scale['foot'] - $drawing->descendY)) / ($scale['foot'] - $scale['top']);
            self::assertEqualsWithDelta(30.0, $pct, 0.2);
        }
    }

    public function testBandsFollowOneAnotherWithoutGaps(): void
    {
        foreach (['cut' => 3, 'descend' => 4, 'return' => 4] as $then => $count) {
            $bands = (new LossDrawing($this->plan(0.5, $then, 30.0), 40.0))->bands;
            self::assertCount($count, $bands);
            self::assertSame(Stage::Heard, $bands[0]['stage']);
            self::assertSame(Stage::Cut, $bands[$count - 1]['stage']);
            for ($i = 1; $i < $count; ++$i) {
                self::assertSame($bands[$i - 1]['to'], $bands[$i]['from']);
                self::assertGreaterThanOrEqual($bands[$i]['from'], $bands[$i]['to']);
            }
        }
        $short = new LossDrawing($this->plan(0.1, 'cut', 30.0), 40.0);
        self::assertSame($short->noticeX, $short->holdX, 'nothing is done before it is noticed');
    }

    public function testTheSinkPlotIsTheLaw(): void
    {
        $law = SinkSpeed::of(36.0, 23.4);
        $plot = new SinkPlot($law, 25.0, 21.0, 33.0, 5.0);
        self::assertEqualsWithDelta($law->steady(33.0, 25.0), $plot->atFull(), 1e-9);
        self::assertEqualsWithDelta($law->steady(33.0, 21.0), $plot->atEmpty(), 1e-9);
        self::assertGreaterThan(SinkPlot::y(1.0), SinkPlot::y(3.0), 'down is down');
        self::assertLessThan($plot->x(21.0), $plot->x(25.0), 'from full to empty');
        $height = $plot->tooLateFrom();
        self::assertNotNull($height);
        $fall = $law->fall($height, 33.0, 21.0);
        self::assertNotNull($fall);
        self::assertEqualsWithDelta(SinkPlot::BREAKS_MS, $fall[1], 0.1);
        self::assertNull((new SinkPlot($law, 25.0, 21.0, 39.9, 5.0))->tooLateFrom(), 'what sinks gently is never too late');
        // Throttle and output: idle of 5 % takes its share.
        $output = 5.0 + (0.95 * $plot->middling());
        self::assertEqualsWithDelta(2.0, $law->steady($output, 23.0), 0.15);
        self::assertNull($plot->advised());
        $narrow = (new SinkPlot($law, 22.05, 22.0, 33.0, 5.0))->advised();
        self::assertNotNull($narrow);
        self::assertLessThanOrEqual($narrow[1], $narrow[0]);
        self::assertMatchesRegularExpression('~^M[\d. ]+(L[\d. ]+)+$~', $plot->line(33.0));
    }

    public function testAPathIsReadBackFromWhatAJobKeptWhateverStandsThere(): void
    {
        foreach (
            [
                [],
                ['points' => 'x'],
                ['points' => [[1, 2]]],
                ['points' => [[0, 0, 0, 10, 0, 'hold']]],
                ['points' => [[0, 0, 0, 1, 0, 7]]],
            ] as $kept
        ) {
            self::assertNull(PathPlot::of($kept));
        }
        $points = [
            [0.0, 0.0, 0.0, 20.0, 0.0, 'heard'],
            [1.0, 0.0, 0.0, 20.0, 0.0, 'hold'],
            [3.0, 3.0, 4.0, 5.0, 8.0, 'cut'],
            [3.5, 3.0, 4.0, 0.1, 9.0, 'cut'],
        ];
        $path = PathPlot::of(['points' => $points, 'off' => 0.9, 'noticed' => 1.05, 'impact' => 9.2, 'told' => ['height' => 20]]);
        self::assertNotNull($path);
        self::assertSame(['heard', 'hold', 'cut'], array_column($path->stages(), 'stage'));
        self::assertEqualsWithDelta(2.6, $path->lasted(), 1e-9);
        self::assertEqualsWithDelta(5.0, $path->drifted(), 1e-9);
        self::assertFalse($path->stillFlies());
        self::assertGreaterThan($path->y(20.0), $path->y(0.0));
        [$seconds, $metres] = $path->ticks();
        self::assertLessThan(12, \count($seconds));
        self::assertLessThan(12, \count($metres));
        $aloft = PathPlot::of(['points' => \array_slice($points, 0, 2), 'off' => 0.9]);
        self::assertTrue($aloft?->stillFlies());
    }

    private function plan(float $hold, string $then, float $pct): LossPlan
    {
        return LossPlan::in(SettingSet::of([
            'link_loss.hold_s' => $hold,
            'link_loss.then' => $then,
            'link_loss.descend_throttle_pct' => $pct,
            'link_loss.descend_s' => 12.0,
        ]));
    }
}
