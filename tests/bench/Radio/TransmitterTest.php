<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Radio;

use Ortholex\Bench\Radio\Dial;
use Ortholex\Bench\Radio\Model;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** The transmitter's memory, and how its controls move in time. */
final class TransmitterTest extends TestCase
{
    public function testASoundMemorySendsWhatTheThumbMeans(): void
    {
        $controls = [0.5, -1.0, 1.0, 0.0, -1.0, 0.0, 1.0, -1.0, -1.0, -1.0, 0.25, -0.25];
        $sound = Model::sound();
        foreach ($controls as $channel => $at) {
            self::assertEqualsWithDelta(1500 + 500 * $at, $sound->us($channel, $controls), 1e-9);
        }
        self::assertSame(1500.0, $sound->us(14, $controls), 'channels that it has not rest in the middle');
    }

    public function testEndPointsSubTrimAndReversalActOnTheirOwnSide(): void
    {
        $model = Model::sound()->dialled(0, Dial::Low, 80.0)->dialled(0, Dial::High, 120.0)->dialled(0, Dial::Trim, 20.0);
        $at = static fn (Model $m, float $stick): float => $m->us(0, [$stick, ...array_fill(0, 11, 0.0)]);
        self::assertEqualsWithDelta(1120.0, $at($model, -1.0), 1e-9);
        self::assertEqualsWithDelta(1520.0, $at($model, 0.0), 1e-9);
        self::assertEqualsWithDelta(2120.0, $at($model, 1.0), 1e-9);
        $turned = $model->dialled(0, Dial::Reversed, 1.0);
        self::assertEqualsWithDelta(2120.0, $at($turned, -1.0), 1e-9);
        self::assertSame(150.0, $model->dialled(0, Dial::High, 900.0)->highPct[0], 'no further than it can be dialled');
        self::assertSame(-150.0, $model->dialled(0, Dial::Trim, -900.0)->trimUs[0]);
    }

    public function testWhatIsKeptComesBackAndWhatIsBrokenIsSound(): void
    {
        $model = Model::sound()->dialled(3, Dial::Low, 66.0)->dialled(5, Dial::Reversed, 1.0);
        self::assertEquals($model, Model::fromArray($model->toArray()));
        self::assertEquals(Model::sound(), Model::fromArray(['low' => [1, 2], 'order' => 'none', 'trim' => null]));
        $radio = new RadioState();
        $radio->move(10.0, 0, 0.7);
        $radio->dial(2, Dial::Trim, 9.0);
        $radio->boundTo = 'other';
        self::assertEquals($radio, RadioState::fromArray($radio->toArray()));
        $broken = ['controls' => [1, 'x'], 'moves' => 'none', 'model' => 5, 'manner' => 'sulks'];
        self::assertEquals(new RadioState(), RadioState::fromArray($broken));
    }

    /** Frames that were heard stay what they were: a later move changes nothing before it. */
    public function testAMoveChangesOnlyWhatComesAfterIt(): void
    {
        $dice = new Lcg(71);
        for ($n = 0; $n < 40; ++$n) {
            $radio = new RadioState();
            $now = 100.0;
            $heard = [];
            for ($move = 0; $move < 25; ++$move) {
                $now += 0.004 + 0.15 * ($dice->next() + 0.5) ** 2;
                $radio->move($now, $dice->whole(0, 3), 2 * $dice->next());
                foreach ($heard as [$time, $then]) {
                    if ($time > $now - 3.0) {
                        self::assertEqualsWithDelta($then, $radio->at($time), 1e-9);
                    }
                }
                $heard[] = [$now - 0.001, $radio->at($now - 0.001)];
            }
            self::assertEqualsWithDelta($radio->controls, $radio->at($now + 0.1), 1e-9, 'in the end it is where it was told to go');
        }
    }

    public function testAStickGlidesAndALeverSnaps(): void
    {
        $radio = new RadioState();
        $radio->move(10.0, 0, 1.0);
        $radio->move(10.0, 4, 1.0);
        $before = 0.0;
        for ($ms = 0; $ms <= 60; $ms += 5) {
            $at = $radio->at(10.0 + $ms / 1000);
            self::assertGreaterThanOrEqual($before, $at[0]);
            self::assertSame(1.0, $at[4]);
            $before = $at[0];
        }
        self::assertEqualsWithDelta(1.0, $before, 1e-9);
        self::assertGreaterThan(0.3, $radio->at(10.03)[0]);
        self::assertLessThan(0.7, $radio->at(10.03)[0]);
    }
}
