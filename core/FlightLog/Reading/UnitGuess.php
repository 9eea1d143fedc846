<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/** Which unit a column is in, by its name or its range, and how it becomes ours: value × scale + offset. */
final readonly class UnitGuess
{
    private function __construct(public string $unit, public float $scale, public float $offset, public bool $byName)
    {
    }

    public static function asIs(string $unit): self
    {
        return new self($unit, 1.0, 0.0, true);
    }

    /** @param list<float> $values of the time column, in order */
    public static function time(string $name, array $values): self
    {
        $said = self::said($name, [
            'µs' => ['us', 'usec', 'micros', 'microseconds', 'µs'],
            'ms' => ['ms', 'msec', 'millis', 'milliseconds'],
            's' => ['s', 'sec', 'seconds'],
        ]);
        if (null === $said) {
            $steps = [];
            for ($i = 1, $n = \count($values); $i < $n; ++$i) {
                if ($values[$i] > $values[$i - 1]) {
                    $steps[] = $values[$i] - $values[$i - 1];
                }
            }
            // 50 Hz to 20 kHz: steps of at most 0.02 s, 20 ms, or at least 50 µs.
            $step = [] === $steps ? 0.001 : Statistics::median($steps);
            $said = match (true) {
                $step < 0.045 => 's',
                $step < 45 => 'ms',
                default => 'µs',
            };

            return new self($said, ['s' => 1.0, 'ms' => 1e-3, 'µs' => 1e-6][$said], 0.0, false);
        }

        return new self($said, ['s' => 1.0, 'ms' => 1e-3, 'µs' => 1e-6][$said], 0.0, true);
    }

    /**
     * @param string      $trace canonical name
     * @param string      $name  as the column is called, with its unit where one stands
     * @param list<float> $values some of it, from all over the flight
     * @param float|null  $turns of rates and setpoints: the 99.5 percentile of all of them together
     */
    public static function of(string $trace, string $name, array $values, ?float $turns = null): self
    {
        $unit = Traces::unitOf($trace) ?? '';
        if ([] === $values || $trace === $name) {
            return self::asIs($unit);
        }
        sort($values);
        $low = Statistics::quantileOfSorted($values, 0.002);
        $high = Statistics::quantileOfSorted($values, 0.998);
        $peak = max(abs($low), abs($high));

        return match ($unit) {
            'deg/s' => self::rate($name, $turns ?? $peak),
            '%' => str_starts_with($trace, 'term_') ? self::asIs('%') : self::share($low, $high),
            'µs' => self::stick($low, $high),
            'g' => self::acceleration($name, $peak),
            'V' => self::scaled('V', $name, Statistics::quantileOfSorted($values, 0.5), ['mV' => ['mv', 'millivolts']]),
            'A' => self::scaled('A', $name, Statistics::quantileOfSorted($values, 0.9), ['mA' => ['ma', 'milliamps']]),
            default => self::asIs($unit),
        };
    }

    private static function rate(string $name, float $peak): self
    {
        $said = self::said($name, ['rad/s' => ['rad', 'rads', 'radians', 'radps'], 'deg/s' => ['deg', 'dps', 'degs', 'degrees', 'degps']]);
        // Nobody flies a log for learning below 25 deg/s, nor above 25 rad/s (1400 deg/s) all axes together.
        $unit = $said ?? ($peak < 25 && $peak > 0 ? 'rad/s' : 'deg/s');

        return new self($unit, 'rad/s' === $unit ? 180 / \M_PI : 1.0, 0.0, null !== $said);
    }

    /** Outputs and throttle: shares of one, percent, thousandths, pulse lengths, or counts to 2047. */
    private static function share(float $low, float $high): self
    {
        return match (true) {
            $high <= 1.3 && $low >= -0.3 => new self('0 to 1', 100.0, 0.0, false),
            $high <= 105 => new self('%', 1.0, 0.0, false),
            $low >= 850 && $high <= 2150 => new self('µs', 0.1, -100.0, false),
            $high <= 1050 => new self('thousandths', 0.1, 0.0, false),
            $high <= 2100 => new self('0 to 2047', 100 / 2047, 0.0, false),
            default => new self('µs × 10', 0.01, -100.0, false),
        };
    }

    private static function stick(float $low, float $high): self
    {
        return match (true) {
            $low >= 700 && $high <= 2300 => new self('µs', 1.0, 0.0, false),
            $low >= -1.3 && $high <= 1.3 => new self('−1 to 1', 500.0, 1500.0, false),
            $low >= -110 && $high <= 110 => new self('%', 5.0, 1500.0, false),
            $low >= -600 && $high <= 600 => new self('±500', 1.0, 1500.0, false),
            default => new self('µs', 1.0, 0.0, false),
        };
    }

    private static function acceleration(string $name, float $peak): self
    {
        $said = self::said($name, ['m/s²' => ['mss', 'ms2', 'mps2'], 'g' => ['g']]);
        $unit = $said ?? ($peak > 400 ? 'counts' : ($peak > 30 ? 'm/s²' : 'g'));

        return new self(
            $unit,
            ['m/s²' => 1 / 9.80665, 'counts' => 1 / 2048][$unit] ?? 1.0,
            0.0,
            null !== $said,
        );
    }

    /** @param array<string, list<string>> $words */
    private static function scaled(string $unit, string $name, float $typical, array $words): self
    {
        $said = self::said($name, $words);
        if (null !== $said || $typical > 1000) {
            return new self("m$unit", 1e-3, 0.0, null !== $said);
        }

        return $typical > 100 ? new self("hundredths of $unit", 1e-2, 0.0, false) : new self($unit, 1.0, 0.0, false);
    }

    /** @param array<string, list<string>> $units unit => words that say it */
    private static function said(string $name, array $units): ?string
    {
        $words = preg_split(
            '~[^a-z0-9µ]+~u',
            mb_strtolower((string) preg_replace('~([a-z])([A-Z])~', '$1 $2', $name)),
            -1,
            \PREG_SPLIT_NO_EMPTY,
        );
        foreach ($units as $unit => $list) {
            if ([] !== array_intersect(false === $words ? [] : $words, $list)) {
                return $unit;
            }
        }

        return null;
    }
}
