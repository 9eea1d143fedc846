<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident;

use Ortholex\Core\Incident\Attribution;
use Ortholex\Core\Incident\CraftModel;
use Ortholex\Core\Incident\FlightRun;
use Ortholex\Core\Incident\Suspicion;
use Ortholex\Tests\core\Lcg;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\TestCase;

/** Who is named, and from which margin on: a craft whose motors are known to the digit, and a pull that is put into its flight. */
final class AttributionTest extends TestCase
{
    private const RATE_HZ = 500;
    private const STEPS = 6000;
    private const ONSET = 5000;

    /** deg/s² per full thrust: roll, pitch, yaw. */
    private const EFFECT = [
        'front_right' => [-9000.0, 8000.0, 1500.0],
        'rear_right' => [-9000.0, -8000.0, -1500.0],
        'rear_left' => [9000.0, -8000.0, 1500.0],
        'front_left' => [9000.0, 8000.0, -1500.0],
    ];

    public function testTwoMotorsTooCloseAreNotToldApart(): void
    {
        [$run, $model, $thrust, $places] = self::flight([0.0, 0.0, 0.0], []);
        $of = static fn (float $second): Attribution => Attribution::of(
            Suspicion::ofLoss($run, self::ONSET, self::ONSET + 100, [20.0, 1.0, 20.0 * $second, 1.0]),
            self::ONSET,
            $model,
            $thrust,
            $places,
        );
        self::assertSame('front_right', $of(0.93)->place, 'a margin of 0.07');
        self::assertEqualsWithDelta(0.07, $of(0.93)->margin, 1e-9);
        self::assertNull($of(0.95)->place, 'a margin of 0.05');
        self::assertNotSame([], $of(0.95)->against, 'and it is said that none fits');
    }

    /** A pull that two motors explain alike: the one that is called for more confirms itself, the one let go does not. */
    public function testTheMotorThatIsCalledForMoreComesFirst(): void
    {
        foreach ([['front_left', 'rear_left'], ['rear_left', 'front_left']] as [$called, $other]) {
            [$run, $model, $thrust, $places] = self::flight([-3000.0, 0.0, 0.0], [$called => 30.0]);
            $ranked = Attribution::of(
                Suspicion::ofRotation($run, self::ONSET, self::ONSET + 100),
                self::ONSET,
                $model,
                $thrust,
                $places,
            )->ranked;
            $fit = array_combine(array_column($ranked, 'place'), array_column($ranked, 'fit'));
            self::assertSame($called, $ranked[0]->place);
            // Called for 30 % more, the mean of the four for 7.5 %: a quarter at 40 %.
            self::assertEqualsWithDelta((0.25 * 30) / 40, $fit[$called] - $fit[$other], 0.06);
        }
    }

    /**
     * @param array{float, float, float} $pull   deg/s² nobody asked for, from the onset on
     * @param array<string, float>       $called output added from the onset on, %, by place
     *
     * @return array{FlightRun, CraftModel, list<list<float>>, list<string>}
     */
    private static function flight(array $pull, array $called): array
    {
        $dice = new Lcg(12);
        $dt = 1 / self::RATE_HZ;
        $lag = 1 - exp(-$dt / 0.025);
        $places = array_keys(self::EFFECT);
        $speed = array_fill_keys($places, 0.4);
        $aim = array_fill_keys($places, 40.0);
        $rate = [0.0, 0.0, 0.0];
        $traces = [];
        for ($i = 0; $i < self::STEPS; ++$i) {
            $accel = $i >= self::ONSET ? $pull : [0.0, 0.0, 0.0];
            foreach ($places as $place) {
                if (0 === $i % 25) {
                    // Before the onset all hover alike, so that only what is called for differs.
                    $aim[$place] = $i < self::ONSET - 150 ? 40 + 30 * $dice->next() : 40.0;
                }
                $output = $aim[$place] + ($i >= self::ONSET ? $called[$place] ?? 0.0 : 0.0);
                $traces["output_{$place}_pct"][] = $output;
                $speed[$place] += $lag * ($output / 100 - $speed[$place]);
                // Hovering, the four keep the craft level: only what differs from that turns it.
                $thrust = $speed[$place] ** 2;
                foreach ([0, 1, 2] as $axis) {
                    $accel[$axis] += self::EFFECT[$place][$axis] * $thrust;
                }
            }
            foreach (['roll', 'pitch', 'yaw'] as $axis => $name) {
                $rate[$axis] += $dt * ($accel[$axis] - 30.0 * $rate[$axis]);
                $traces["rate_filtered_{$name}_dps"][] = $rate[$axis];
                $traces["setpoint_{$name}_dps"][] = 0.0;
            }
        }
        $run = FlightRun::allOf(KnownFlight::of($traces, self::RATE_HZ))[0];
        $use = array_map(static fn (int $i): bool => $i < self::ONSET, range(0, $run->count() - 1));
        $model = CraftModel::fit($run->accel, $run->rate, $run->outputs, $use, $run->stepS);
        self::assertNotNull($model);
        self::assertGreaterThan(0.9, $model->r2[0], 'the flight teaches what the motors do');

        return [$run, $model, CraftModel::thrust($run->outputs, $model->lagS, $model->power, $run->stepS), $places];
    }
}
