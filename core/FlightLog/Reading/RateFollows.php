<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\FlightLog\Units\UnitGuess;

/** How a rate stands over its setpoint, as the columns of a log are read: of a craft that flies they lie along the line of equals. */
final readonly class RateFollows
{
    /** So many moments show it. */
    private const MOMENTS = 240;

    /** Setpoints under this say nothing, as a share of the largest. */
    private const LEAST_SHARE = 0.1;

    /** Ratios outside of these: the units of rate and setpoint are not of one kind. */
    private const ALIKE = [0.5, 1.6];

    /**
     * @param list<array{float, float}> $points setpoint and rate, deg/s
     * @param float|null                $ratio  of the rate to its setpoint; null where the sticks moved nothing
     */
    private function __construct(public Axis $axis, public array $points, public ?float $ratio)
    {
    }

    /**
     * @param list<ColumnGuess>        $guesses
     * @param array<string, UnitGuess> $units by trace
     * @param list<list<float>>        $rows  from all over
     *
     * @return list<self> of the axes of which both were logged
     */
    public static function of(array $guesses, array $units, array $rows): array
    {
        $columns = array_column(array_filter($guesses, static fn (ColumnGuess $g): bool => null !== $g->trace), 'column', 'trace');
        $every = max(1, intdiv(\count($rows), self::MOMENTS));
        $all = [];
        foreach (Axis::cases() as $axis) {
            $set = Traces::setpoint($axis);
            $rate = Traces::rateOfRotation(array_keys($columns), $axis);
            if (null === $rate || !isset($columns[$set], $units[$set], $units[$rate])) {
                continue;
            }
            $points = [];
            for ($i = 0, $n = \count($rows); $i < $n; $i += $every) {
                $points[] = [$units[$set]->inOurs($rows[$i][$columns[$set]]), $units[$rate]->inOurs($rows[$i][$columns[$rate]])];
            }
            $all[] = new self($axis, $points, self::ratio($points));
        }

        return $all;
    }

    /** Whether the two are of one unit; null where the sticks moved nothing. */
    public function isAlike(): ?bool
    {
        return null === $this->ratio ? null : $this->ratio > self::ALIKE[0] && $this->ratio < self::ALIKE[1];
    }

    /** @param list<array{float, float}> $points */
    private static function ratio(array $points): ?float
    {
        $most = max([0.0, ...array_map(abs(...), array_column($points, 0))]);
        $both = $square = 0.0;
        foreach ($points as [$set, $rate]) {
            if (abs($set) > self::LEAST_SHARE * $most) {
                $both += $set * $rate;
                $square += $set * $set;
            }
        }

        return $square > 0 ? $both / $square : null;
    }
}
