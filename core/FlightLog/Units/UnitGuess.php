<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Units;

use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/** Which unit a column is in, by its name or its range, and how it becomes ours: value × scale + offset. */
final readonly class UnitGuess
{
    /** What each unit that can be chosen makes of a value: scale and offset, by our unit. */
    public const CHOICES = [
        's' => ['s' => [1.0, 0.0], 'ms' => [1e-3, 0.0], 'µs' => [1e-6, 0.0], 'ns' => [1e-9, 0.0]],
        'deg/s' => [
            'deg/s' => [1.0, 0.0],
            'rad/s' => [57.29577951308232, 0.0],
            'mrad/s' => [0.05729577951308232, 0.0],
            '0.1 deg/s' => [0.1, 0.0],
            'counts of 2000 deg/s' => [2000 / 32768, 0.0],
            'counts of 1000 deg/s' => [1000 / 32768, 0.0],
            'counts of 500 deg/s' => [500 / 32768, 0.0],
        ],
        '%' => [
            '%' => [1.0, 0.0],
            '0 to 1' => [100.0, 0.0],
            '−1 to 1' => [50.0, 50.0],
            'µs' => [0.1, -100.0],
            'thousandths' => [0.1, 0.0],
            '0 to 2047' => [100 / 2047, 0.0],
            'µs × 10' => [0.01, -100.0],
        ],
    ];

    private const TENTHS = '~(?:\b0?[.,]1\s*(?:deg|dps)|(?:deg\w*|dps)(?:/s)?\s*[*x×]\s*10\b|tenth)~iu';

    /** A rate is as large as its setpoint within this factor, in most flights. */
    private const ALIKE = 1.3;

    /** In hard flying it is off by up to this; and by the other where it follows no better than so. */
    private const APART = 1.6;

    private const FAR_APART = 2.1;
    private const FOLLOWS_WELL = 0.9;

    /** Peaks, deg/s, between which a unit that no name says is plain to see. */
    private const PLAIN_FROM_DPS = 60.0;

    private const PLAIN_TO_DPS = 2200.0;

    /** Peaks, deg/s, that a desk stays under, and that every flight passes. */
    private const DESK_DPS = 0.5;

    private const STILL_DPS = 4.0;

    /**
     * @param UnitSource $why  what settled it
     * @param bool       $sure whether it needs no asking
     */
    private function __construct(
        public string $unit,
        public float $scale,
        public float $offset,
        public UnitSource $why,
        public bool $sure = true,
    ) {
    }

    /** As it was ordered. */
    public static function chosen(string $ours, string $unit): ?self
    {
        $way = self::CHOICES[$ours][$unit] ?? null;

        return null === $way ? null : new self($unit, $way[0], $way[1], UnitSource::Given);
    }

    /** Whether anything can be read in this unit. */
    public static function isKnown(string $unit): bool
    {
        foreach (self::CHOICES as $units) {
            if (isset($units[$unit])) {
                return true;
            }
        }

        return false;
    }

    /**
     * The unit of rotation that makes of a value what its setpoint says, times the value; asked where another is about as near.
     *
     * @param float $follows how well it follows its setpoint, 0 to 1
     */
    public static function ofRatio(float $factor, float $follows): ?self
    {
        $near = [];
        foreach (self::CHOICES['deg/s'] as $unit => [$scale]) {
            $near[] = [abs(log(max(1e-12, $factor) / $scale)), new self($unit, $scale, 0.0, UnitSource::Setpoint)];
        }
        usort($near, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        [[$off, $best], [$next]] = $near;
        if ($off >= log(self::ALIKE)) {
            return null;
        }

        return $next > log($follows < self::FOLLOWS_WELL ? self::FAR_APART : self::APART) ? $best : $best->unsure();
    }

    /** The unit of rotation on whose steps the values lie. */
    public static function bySteps(string $unit): self
    {
        return new self($unit, self::CHOICES['deg/s'][$unit][0], 0.0, UnitSource::Steps);
    }

    /** The unit of rotation in which the outputs turn the craft as they can turn one. */
    public static function byOutputs(string $unit): self
    {
        return new self($unit, self::CHOICES['deg/s'][$unit][0], 0.0, UnitSource::Outputs);
    }

    /** Whether its name says the unit, believed or not. */
    public function isNamed(): bool
    {
        return UnitSource::Name === $this->why || UnitSource::NameAlone === $this->why;
    }

    /** A value of the column, in our unit. */
    public function inOurs(float $value): float
    {
        return $value * $this->scale + $this->offset;
    }

    /** The same, but asked. */
    public function unsure(): self
    {
        $why = UnitSource::Name === $this->why ? UnitSource::NameAlone : $this->why;

        return new self($this->unit, $this->scale, $this->offset, $why, false);
    }

    /** The same, and settled: rate and setpoint say it of each other. */
    public function followed(): self
    {
        return new self($this->unit, $this->scale, $this->offset, UnitSource::Setpoint);
    }

    public static function asIs(string $unit): self
    {
        return new self($unit, 1.0, 0.0, UnitSource::Name);
    }

    /** @param list<float> $values of the time column, in order */
    public static function time(string $name, array $values): self
    {
        $said = self::said($name, [
            'µs' => ['us', 'usec', 'micros', 'microseconds', 'µs'],
            'ms' => ['ms', 'msec', 'millis', 'milliseconds'],
            'ns' => ['ns', 'nsec', 'nanos', 'nanoseconds'],
            's' => ['s', 'sec', 'seconds'],
        ]);
        if (null === $said) {
            $steps = [];
            for ($i = 1, $n = \count($values); $i < $n; ++$i) {
                if ($values[$i] > $values[$i - 1]) {
                    $steps[] = $values[$i] - $values[$i - 1];
                }
            }
            // 50 Hz to 20 kHz: steps of at most 0.02 s, 20 ms, or at least 50 µs, or 50 000 ns.
            $step = [] === $steps ? 0.001 : Statistics::median($steps);
            $guess = match (true) {
                $step < 0.045 => 's',
                $step < 45 => 'ms',
                $step < 45e3 => 'µs',
                default => 'ns',
            };

            return new self($guess, self::CHOICES['s'][$guess][0], 0.0, UnitSource::Range);
        }

        return new self($said, self::CHOICES['s'][$said][0], 0.0, UnitSource::Name);
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
        $said = self::said($name, [
            'mrad/s' => ['mrad', 'mrads', 'millirad', 'milliradians'],
            'rad/s' => ['rad', 'rads', 'radians', 'radps'],
            '0.1 deg/s' => ['ddps', 'decideg', 'decidegs', 'decidegrees', 'ddeg', 'ddegs'],
            'deg/s' => ['deg', 'dps', 'degs', 'degrees', 'degps'],
        ]);
        if ('deg/s' === $said && 1 === preg_match(self::TENTHS, $name)) {
            $said = '0.1 deg/s';
        }
        if (null !== $said) {
            // A name can be wrong: where nothing flies so fast, or so still and yet not on a desk, it is asked after all.
            $scale = self::CHOICES['deg/s'][$said][0];
            $dps = $peak * $scale;
            $can = $dps < 2 * self::PLAIN_TO_DPS && ($dps < self::DESK_DPS || $dps > self::STILL_DPS);

            return new self($said, $scale, 0.0, $can ? UnitSource::Name : UnitSource::NameAlone, $can);
        }
        // Nobody flies above 25 rad/s (1400 deg/s) all axes together; a calm flight may well stay below 25 deg/s, so that is asked.
        $unit = $peak < 25 && $peak > 0 ? 'rad/s' : 'deg/s';
        $plain = $peak >= self::PLAIN_FROM_DPS && $peak <= self::PLAIN_TO_DPS;

        return new self($unit, self::CHOICES['deg/s'][$unit][0], 0.0, UnitSource::Range, $plain || 0.0 === $peak);
    }

    /** Outputs and throttle: shares of one, to either side of nothing, percent, thousandths, pulse lengths, or counts to 2047. */
    private static function share(float $low, float $high): self
    {
        $unit = match (true) {
            $high <= 1.3 && $low < -0.5 && $low >= -1.3 => '−1 to 1',
            $high <= 1.3 && $low >= -0.3 => '0 to 1',
            $high <= 105 => '%',
            $low >= 850 && $high <= 2150 => 'µs',
            $high <= 1050 => 'thousandths',
            $high <= 2100 => '0 to 2047',
            default => 'µs × 10',
        };
        [$scale, $offset] = self::CHOICES['%'][$unit];

        return new self($unit, $scale, $offset, UnitSource::Range);
    }

    private static function stick(float $low, float $high): self
    {
        return match (true) {
            $low >= 700 && $high <= 2300 => new self('µs', 1.0, 0.0, UnitSource::Range),
            $low >= -1.3 && $high <= 1.3 => new self('−1 to 1', 500.0, 1500.0, UnitSource::Range),
            $low >= -110 && $high <= 110 => new self('%', 5.0, 1500.0, UnitSource::Range),
            $low >= -600 && $high <= 600 => new self('±500', 1.0, 1500.0, UnitSource::Range),
            default => new self('µs', 1.0, 0.0, UnitSource::Range),
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
            null !== $said ? UnitSource::Name : UnitSource::Range,
        );
    }

    /** @param array<string, list<string>> $words */
    private static function scaled(string $unit, string $name, float $typical, array $words): self
    {
        $said = self::said($name, $words);
        if (null !== $said || $typical > 1000) {
            return new self("m$unit", 1e-3, 0.0, null !== $said ? UnitSource::Name : UnitSource::Range);
        }

        return $typical > 100
            ? new self("hundredths of $unit", 1e-2, 0.0, UnitSource::Range)
            : new self($unit, 1.0, 0.0, UnitSource::Range);
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
