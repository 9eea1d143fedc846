<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

/** What the motors' currents do to a compass: the field against the output, at rest, by a line through it. */
final readonly class MotorDisturbance
{
    /** A heading wrong by more than this is a stop, deg. */
    public const STOP_DEG = 10.0;

    /**
     * @param array{float, float, float} $perPct  µT per % of output, in the axes that were given
     * @param float                      $slopeUt its length
     * @param float                      $residualUt RMS of what the line does not explain
     */
    private function __construct(public array $perPct, public float $slopeUt, public float $residualUt)
    {
    }

    /**
     * @param list<array{float, array{float, float, float}}> $readings output in %, field set right in µT
     *
     * @return self|null null where the output was never varied
     */
    public static function of(array $readings): ?self
    {
        $n = \count($readings);
        $mean = $n > 0 ? array_sum(array_column($readings, 0)) / $n : 0.0;
        $spread = array_sum(array_map(static fn (array $r): float => ($r[0] - $mean) ** 2, $readings));
        if ($n < 6 || $spread < 1.0) {
            return null;
        }
        $slope = [];
        $left = 0.0;
        for ($axis = 0; $axis < 3; ++$axis) {
            $of = array_map(static fn (array $r): float => $r[1][$axis], $readings);
            $middle = array_sum($of) / $n;
            $k = array_sum(array_map(static fn (array $r): float => ($r[0] - $mean) * $r[1][$axis], $readings)) / $spread;
            foreach ($readings as $r) {
                $left += ($r[1][$axis] - $middle - $k * ($r[0] - $mean)) ** 2;
            }
            $slope[] = $k;
        }

        return new self([$slope[0], $slope[1], $slope[2]], sqrt($slope[0] ** 2 + $slope[1] ** 2 + $slope[2] ** 2), sqrt($left / $n));
    }

    /**
     * The most that it turns a heading, deg: as much of it as lies level, across the level part of the earth's field.
     *
     * @param array{float, float, float} $down   in the same axes, of length 1
     * @param float                      $levelUt level part of the field at this place
     */
    public function headingErrorDeg(float $outputPct, array $down, float $levelUt): float
    {
        $by = array_map(static fn (float $k): float => $k * $outputPct, $this->perPct);
        $along = $by[0] * $down[0] + $by[1] * $down[1] + $by[2] * $down[2];
        $level = sqrt(max(0.0, $by[0] ** 2 + $by[1] ** 2 + $by[2] ** 2 - $along ** 2));

        return $level >= $levelUt ? 180.0 : rad2deg(asin($level / $levelUt));
    }
}
