<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;

/**
 * Matches the column names of any CSV to canonical traces, by the words in them.
 *
 * A name is cut into words (at case changes, digits and marks). Words say the quantity, the axis or motor, and how it
 * was filtered; what no word explains lowers the score. Each trace is given once, to the best of its columns.
 */
final readonly class ColumnMatcher
{
    private const AXES = [
        'roll' => ['roll', 'rol', 'aileron', 'ail', 'x', 'bank', 'rollen', 'roulis'],
        'pitch' => ['pitch', 'pit', 'elevator', 'ele', 'y', 'nick', 'nicken', 'tangage'],
        'yaw' => ['yaw', 'rudder', 'rud', 'z', 'gier', 'gieren', 'lacet'],
    ];
    private const QUANTITIES = [
        'setpoint' => [
            'setpoint',
            'setpoints',
            'sp',
            'command',
            'commanded',
            'cmd',
            'target',
            'desired',
            'des',
            'demand',
            'demanded',
            'reference',
            'ref',
            'wanted',
            'requested',
            'req',
            'asked',
            'goal',
            'soll',
            'sollwert',
            'consigne',
        ],
        'rate' => ['gyro', 'gyroscope', 'gyr', 'rate', 'rates', 'omega', 'angular', 'rotation', 'angvel', 'w', 'drehrate'],
        'output' => ['motor', 'motors', 'mot', 'output', 'outputs', 'out', 'actuator', 'act', 'servo', 'pwm', 'esc', 'm'],
        'rpm' => ['rpm', 'rotorspeed'],
        'throttle' => ['throttle', 'thr', 'thrust', 'collective', 'gas'],
        'stick' => ['stick', 'sticks', 'rc', 'channel', 'chan', 'ch', 'receiver', 'rx', 'input'],
        'accel' => ['accel', 'acc', 'accelerometer', 'acceleration', 'accelerations'],
        'battery' => ['battery', 'bat', 'voltage', 'volt', 'volts', 'batt'],
        'current' => ['current', 'amps', 'ampere', 'amperes', 'amperage', 'curr'],
        'time' => ['time', 'timestamp', 'clock', 'elapsed', 't', 'ts', 'zeit', 'temps', 'tiempo', 'tempo'],
    ];
    private const TERMS = [
        'p' => ['p', 'pterm', 'proportional'],
        'i' => ['i', 'iterm', 'integral'],
        'd' => ['d', 'dterm', 'derivative'],
        'ff' => ['ff', 'f', 'feedforward', 'fterm'],
    ];

    /** What the craft does, said of an axis without naming the quantity. */
    private const ACTUAL = ['actual', 'act', 'ist', 'istwert', 'is', 'real', 'response', 'feedback', 'fb', 'mesure'];

    /** Body rates of flight mechanics: p, q and r, where all three are there. */
    private const LETTERS = ['p' => 'roll', 'q' => 'pitch', 'r' => 'yaw'];

    private const RAW = ['raw', 'unfiltered', 'unfilt', 'measured', 'meas', 'prefilter', 'pre', 'before', 'scaled', 'in'];
    private const FILTERED = ['filtered', 'filt', 'flt', 'filter', 'post', 'after', 'lpf', 'smoothed', 'smooth', 'clean'];
    private const NEUTRAL = [
        's',
        'ms',
        'us',
        'sec',
        'seconds',
        'second',
        'millis',
        'micros',
        'microseconds',
        'milliseconds',
        'dps',
        'deg',
        'degs',
        'rad',
        'rads',
        'per',
        'pct',
        'percent',
        'hz',
        'v',
        'a',
        'g',
        'log',
        'data',
        'value',
        'velocity',
        'vel',
        'speed',
        'signal',
        'axis',
        'pid',
        'term',
        'body',
        'in',
        'of',
        'the',
        'sensor',
        'imu',
        'control',
        'loop',
        'norm',
        'usec',
        'msec',
        'µs',
        'mv',
        'ma',
        'unit',
        'cmd',
        'angular',
        'rate',
        'frame',
    ];

    /**
     * @param list<string> $header
     * @param array<string, string|null> $given trace (or null for none) by column name: what was answered or ordered
     *
     * @return list<ColumnGuess> one per column
     *
     * @throws LogError when an order names a column or trace there is not
     */
    public static function of(array $header, array $given = []): array
    {
        foreach ($given as $name => $trace) {
            if (!\in_array($name, $header, true)) {
                throw LogError::noColumn($name, $trace, $header);
            }
            if (null !== $trace && Traces::TIME !== $trace && null === Traces::unitOf($trace)) {
                throw LogError::unknownTrace($trace);
            }
        }
        $candidates = [];
        $words = array_merge(...array_map(self::words(...), $header));
        $letters = [] === array_diff(array_keys(self::LETTERS), $words);
        foreach ($header as $column => $name) {
            $candidates[$column] = \array_key_exists($name, $given) ? [[$given[$name], 1.0]] : self::candidates($name, $letters);
        }
        $candidates = self::settled($candidates);
        // Best first: a trace goes to the column that fits it best; the others fall back on their next.
        $order = [];
        foreach ($candidates as $column => $list) {
            foreach ($list as [$trace, $score]) {
                $order[] = [$score, -$column, $column, $trace];
            }
        }
        rsort($order);
        $taken = $chosen = [];
        foreach ($order as [$score, , $column, $trace]) {
            if (isset($chosen[$column]) || (null !== $trace && isset($taken[$trace]))) {
                continue;
            }
            $chosen[$column] = new ColumnGuess($column, $header[$column], $trace, $score);
            if (null !== $trace) {
                $taken[$trace] = true;
            }
        }
        $guesses = [];
        foreach ($header as $column => $name) {
            $guesses[] = $chosen[$column] ?? new ColumnGuess($column, $name, null, 0.0);
        }

        return $guesses;
    }

    /** @return list<array{string|null, float}> traces a name may mean, with scores */
    private static function candidates(string $name, bool $letters): array
    {
        if (Traces::TIME === $name || null !== Traces::unitOf($name)) {
            return [[$name, 1.0]];
        }
        $words = self::words($name);
        if ([] === $words) {
            return [];
        }
        /** @param list<string> $list */
        $has = static fn (array $list): bool => [] !== array_filter($words, static fn (string $w): bool => \in_array($w, $list, true));
        $number = null;
        foreach ($words as $word) {
            if (ctype_digit($word)) {
                $number = (int) $word;
            }
        }
        $axis = null;
        foreach (self::AXES as $is => $list) {
            if ($has($list)) {
                $axis = $is;
            }
        }
        $term = null;
        foreach (self::TERMS as $is => $list) {
            // A lone letter is a term only beside a word of control, or before an axis.
            if ($has($list) && $has(['pid', 'term', 'axis', 'control', ...self::TERMS[$is]])) {
                $term = $is;
            }
        }
        $letter = array_values(array_intersect($words, array_keys(self::LETTERS)))[0] ?? null;
        $byLetter =
            $letters
            && null === $axis
            && null !== $letter
            && ($has(self::QUANTITIES['setpoint'])
                || $has(self::QUANTITIES['rate'])
                || $has(self::RAW)
                || $has(self::FILTERED)
                || $has(self::ACTUAL));
        if ($byLetter) {
            $axis = self::LETTERS[$letter];
            $term = null;
        }
        $explained = array_filter(
            $words,
            static fn (string $w): bool => ctype_digit($w)
                || ($byLetter && $w === $letter)
                || \in_array($w, self::ACTUAL, true)
                || \in_array($w, self::NEUTRAL, true)
                || \in_array($w, self::RAW, true)
                || \in_array($w, self::FILTERED, true)
                || [] !==
                    array_filter(
                        [...self::AXES, ...self::QUANTITIES, ...self::TERMS],
                        static fn (array $l): bool => \in_array($w, $l, true),
                    ),
        );
        $share = \count($explained) / \count($words);
        $byNumber = null === $axis && null !== $number && $number <= 2 ? array_keys(self::AXES)[$number] : null;
        $out = [];
        $put = static function (string $trace, float $score) use (&$out, $share): void {
            $out[] = [$trace, round($score * $share ** 1.5, 3)];
        };
        $q = self::QUANTITIES;
        $on = $axis ?? $byNumber;
        $sure = null === $axis ? 0.86 : 0.96;
        if (null !== $on && $has($q['setpoint']) && !$has($q['accel']) && !$has(['stick', 'rc'])) {
            $put("setpoint_{$on}_dps", $sure);
        } elseif (null !== $on && $has($q['accel'])) {
            $put('accel_'.['roll' => 'x', 'pitch' => 'y', 'yaw' => 'z'][$on].'_g', $sure);
        } elseif (
            null !== $on
            && null !== $term
            && !$has($q['rate'])
            && ($has([
                'pid',
                'term',
                'axis',
                'pterm',
                'iterm',
                'dterm',
                'fterm',
                'feedforward',
                'ff',
                'proportional',
                'integral',
                'derivative',
            ])
                || 2 === \count($words))
        ) {
            $put("term_{$term}_$on", $sure - 0.02);
        } elseif (null !== $on && $has($q['rate'])) {
            $raw = $has(self::RAW);
            $filtered = $has(self::FILTERED) && !$has(['unfiltered', 'unfilt', 'prefilter']);
            $put("rate_measured_{$on}_dps", $raw && !$filtered ? $sure : ($filtered ? 0.2 : 0.84));
            $put("rate_filtered_{$on}_dps", $filtered ? $sure : ($raw ? 0.2 : 0.82));
        } elseif (
            null !== $axis
            && ($has(self::ACTUAL) || $has(self::RAW) || $has(self::FILTERED))
            && (!$has($q['output']) || $has(['act']))
            && !$has($q['stick'])
        ) {
            // What an axis does, with no word for what of it: its rate, as likely as not.
            $filtered = $has(self::FILTERED);
            $put("rate_measured_{$axis}_dps", $filtered ? 0.2 : 0.8);
            $put("rate_filtered_{$axis}_dps", $filtered ? 0.8 : 0.6);
        } elseif ($has($q['rpm'])) {
            $put('rpm_'.self::placeOf($words, $number), $has(['erpm', 'e']) ? 0.5 : 0.95);
        } elseif (null !== $on && null !== $axis && $has($q['stick'])) {
            $put("stick_{$on}_us", 0.92);
        } elseif ($has($q['output']) && null === $axis && (null !== $number || null !== self::place($words))) {
            $put('output_'.self::placeOf($words, $number).'_pct', 0.94);
        } elseif ($has($q['throttle'])) {
            $has($q['stick']) ? $put('stick_throttle_us', 0.9) : $put('throttle_pct', 0.94);
            $put('throttle_pct', 0.7);
        } elseif ($has($q['battery'])) {
            $put('battery_v', 0.93);
        } elseif ($has($q['current'])) {
            $put('current_a', 0.93);
        } elseif ($has($q['time'])) {
            $put(Traces::TIME, 0.95);
        } elseif (null !== $axis && 1 === \count($words)) {
            // An axis and nothing else: most likely its rate, but that is a guess.
            $put("rate_measured_{$axis}_dps", 0.5);
        }

        return $out;
    }

    /**
     * Where a log has one set of rates marked as filtered or raw, the unmarked set is the other; alone it is the measured one.
     *
     * @param array<int, list<array{string|null, float}>> $candidates
     *
     * @return array<int, list<array{string|null, float}>>
     */
    private static function settled(array $candidates): array
    {
        $marked = ['measured' => false, 'filtered' => false];
        foreach ($candidates as $list) {
            foreach ($list as [$trace, $score]) {
                foreach (['measured', 'filtered'] as $kind) {
                    $marked[$kind] = $marked[$kind] || ($score >= 0.85 && null !== $trace && str_starts_with($trace, "rate_$kind"));
                }
            }
        }
        if (!$marked['measured']) {
            return $candidates;
        }
        foreach ($candidates as $column => $list) {
            foreach ($list as $i => [$trace, $score]) {
                // Unmarked beside a raw one: it is what the controller saw.
                if (null !== $trace && str_starts_with($trace, 'rate_filtered') && $score > 0.5 && $score < 0.85) {
                    $candidates[$column][$i] = [$trace, 0.88];
                }
            }
        }

        return $candidates;
    }

    /** @return list<string> lower case */
    private static function words(string $name): array
    {
        $name = (string) preg_replace(
            ['~([a-z])([A-Z])~', '~([A-Z])([A-Z][a-z])~', '~([A-Za-zµ])(\d)~', '~(\d)([A-Za-z])~'],
            '$1 $2',
            $name,
        );
        $words = preg_split('~[^A-Za-z0-9µ]+~u', mb_strtolower($name), -1, \PREG_SPLIT_NO_EMPTY);
        $out = [];
        foreach (false === $words ? [] : $words as $word) {
            // A volt's letter grown onto its battery says nothing more.
            if (1 === preg_match('~^v(bat\w*)$~', $word, $m)) {
                $out[] = $m[1];
                continue;
            }
            // Words grown together with their axis or number of kind, as in "gyrox".
            if (
                1 ===
                preg_match('~^(gyro|gyr|acc|accel|motor|rate|setpoint|omega|cmd)(roll|pitch|yaw|x|y|z|raw|filt|filtered)$~', $word, $m)
            ) {
                $out[] = $m[1];
                $out[] = $m[2];
            } else {
                $out[] = $word;
            }
        }

        return $out;
    }

    /** @param list<string> $words */
    private static function placeOf(array $words, ?int $number): string
    {
        return self::place($words) ?? (string) ($number ?? 0);
    }

    /** @param list<string> $words */
    private static function place(array $words): ?string
    {
        $along = array_intersect($words, ['front', 'rear', 'back', 'fr', 'fl', 'rr', 'rl', 'br', 'bl']);
        $across = array_values(array_intersect($words, ['left', 'right']));
        $first = reset($along);
        if (false === $first) {
            return $across[0] ?? null;
        }
        if (2 === \strlen($first)) {
            return ('f' === $first[0] ? 'front' : 'rear').'_'.('r' === $first[1] ? 'right' : 'left');
        }

        return ('f' === $first[0] ? 'front' : 'rear').(isset($across[0]) ? "_$across[0]" : '');
    }
}
