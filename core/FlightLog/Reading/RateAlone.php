<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\FlightLog\Units\UnitGuess;

/** The unit of rates by themselves: the steps that they lie on, and what the outputs make of a craft. No setpoint is needed. */
final readonly class RateAlone
{
    /** Moments of a run further apart than so many usual ones are of two runs. */
    private const APART = 4.0;

    /** What a rate may be in that no name gives a unit: with fractions, and in whole numbers. */
    private const WITH_FRACTIONS = ['deg/s', 'rad/s'];

    /** And what it may be in whatever its name says: whoever writes a wrong unit may write fractions of it, too. */
    private const NAMED = ['deg/s', 'rad/s', '0.1 deg/s', 'mrad/s'];

    private const WHOLE = ['deg/s', '0.1 deg/s', 'mrad/s', 'counts of 2000 deg/s', 'counts of 1000 deg/s', 'counts of 500 deg/s'];

    /**
     * @param array<string, int>       $columns by trace
     * @param list<list<float>>        $rows    some one after the other, from several places of the log
     * @param array<string, UnitGuess> $units   by trace
     */
    public function __construct(private array $columns, private array $rows, private array $units)
    {
    }

    /** @param list<string> $rates of one kind that were logged, not ordered; the first of them says how the others are taken now */
    public function unit(array $rates): ?UnitGuess
    {
        if ([] === $rates || \count($this->rows) < 2) {
            return null;
        }
        $now = $this->units[$rates[0]];
        $found = $this->bySteps($rates);
        if (null !== $found) {
            // What two things say is so; where steps and name differ, it is asked.
            return $found->unit === $now->unit || !$now->isNamed() ? $found : $found->unsure();
        }

        return $this->byOutputs($rates, $now);
    }

    /** @param list<string> $rates */
    private function bySteps(array $rates): ?UnitGuess
    {
        $found = [];
        foreach ($rates as $rate) {
            $unit = RateSteps::unit(array_column($this->rows, $this->columns[$rate]));
            if (null !== $unit) {
                $found[$unit->unit] = $unit;
            }
        }

        return 1 === \count($found) ? reset($found) : null;
    }

    /** @param list<string> $rates */
    private function byOutputs(array $rates, UnitGuess $now): ?UnitGuess
    {
        $turns = $this->authority($rates);
        $named = $now->isNamed();
        if (null === $turns) {
            // Nothing but its name says so, and a name can be wrong.
            return $named ? $now->unsure() : null;
        }
        $can = [];
        $may = $named ? self::NAMED : self::WITH_FRACTIONS;
        foreach ($this->isWhole($rates) ? [...self::WHOLE, ...$named ? ['rad/s'] : []] : $may as $unit) {
            if ($turns->allows(UnitGuess::CHOICES['deg/s'][$unit][0])) {
                $can[] = $unit;
            }
        }
        if (1 === \count($can)) {
            $only = UnitGuess::byOutputs($can[0]);

            return $named && $only->unit !== $now->unit ? $only->unsure() : $only;
        }

        return !$named && $turns->allows($now->scale) && $now->sure ? null : $now->unsure();
    }

    /** @param list<string> $rates */
    private function isWhole(array $rates): bool
    {
        foreach ($rates as $rate) {
            foreach (array_column($this->rows, $this->columns[$rate]) as $v) {
                if (floor($v) !== $v) {
                    return false;
                }
            }
        }

        return true;
    }

    /** @param list<string> $rates */
    private function authority(array $rates): ?RateAuthority
    {
        $outputs = array_filter($this->columns, static fn (string $t): bool => str_starts_with($t, 'output_'), \ARRAY_FILTER_USE_KEY);
        $time = $this->columns[Traces::TIME] ?? null;
        if (null === $time || \count($outputs) < 3) {
            return null;
        }
        $best = null;
        foreach ($rates as $rate) {
            if (str_ends_with($rate, Axis::Yaw->value.'_dps')) {
                continue;
            }
            $found = RateAuthority::of($this->runs($time, $this->columns[$rate], $outputs));
            $best = null !== $found && (null === $best || $found->explained > $best->explained) ? $found : $best;
        }

        return $best;
    }

    /**
     * @param array<string, int> $outputs columns by trace
     *
     * @return list<list<array{float, float, list<float>}>>
     */
    private function runs(int $time, int $rate, array $outputs): array
    {
        $runs = [];
        $run = [];
        $usual = 0.0;
        $last = null;
        foreach ($this->rows as $row) {
            $t = $this->units[Traces::TIME]->inOurs($row[$time]);
            $step = null === $last ? 0.0 : $t - $last;
            if (null !== $last && ($step <= 0.0 || ($usual > 0.0 && $step > self::APART * $usual))) {
                $runs[] = $run;
                $run = [];
                $usual = 0.0;
            } elseif ($step > 0.0) {
                $usual = 0.0 === $usual ? $step : 0.9 * $usual + 0.1 * $step;
            }
            $of = [];
            foreach ($outputs as $trace => $column) {
                $of[] = $this->units[$trace]->inOurs($row[$column]) / 100;
            }
            $run[] = [$t, $row[$rate], $of];
            $last = $t;
        }
        $runs[] = $run;

        return $runs;
    }
}
