<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Report;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;

/**
 * A small flight of its own making, with known truth: own physics, own controller, own noise. It shares no code with
 * the bench and none with the analysis; it comes in as a CSV like anybody's.
 */
final class KnownFlight
{
    private int $state;

    public function __construct(int $seed)
    {
        $this->state = ($seed * 2654435761 + 12345) & 0x7FFFFFFF;
    }

    /**
     * @param array<string, array{float, float, int}> $motors     forward, right (of a half), spin; by place
     * @param string|null                             $lost       whose motor stops pushing
     * @param string                                  $moves      mixed or flips
     * @param bool                                    $withRpm    whether rpm is logged
     */
    public function fly(
        array $motors,
        float $throttle,
        ?string $lost,
        float $lostAt,
        string $moves,
        float $seconds = 12.0,
        int $rate = 1000,
        bool $withRpm = false,
        string $header = '',
    ): FlightLog {
        $places = array_keys($motors);
        $n = \count($places);
        $dt = 1 / $rate;
        $effect = $mix = [];
        foreach (array_values($motors) as [$forward, $right, $spin]) {
            // deg/s² per full thrust; the yaw of a prop is small.
            $effect[] = [(-14000.0 * $right * 4) / $n, (12500.0 * $forward * 4) / $n, (-2100.0 * $spin * 4) / $n];
            $mix[] = [-$right, $forward, -$spin];
        }
        $speed = array_fill(0, $n, $throttle / 100);
        $w = $i = $before = [0.0, 0.0, 0.0];
        $set = $goal = [0.0, 0.0, 0.0];
        $until = [0.0, 0.0, 0.0];
        $rows = [];
        $health = 1.0;
        $level = $throttle;
        for ($k = 0, $steps = (int) ($seconds * $rate); $k < $steps; ++$k) {
            $t = $k * $dt;
            foreach ([0, 1, 2] as $a) {
                if ($t >= $until[$a]) {
                    $hold = 'flips' === $moves && 2 !== $a && $this->next() < 0.3;
                    $goal[$a] = $hold
                        ? ($this->next() < 0.5 ? -1 : 1) * (380 + 170 * $this->next())
                        : (2 === $a ? 50 : 150) * (2 * $this->next() - 1);
                    $until[$a] = $t + ($hold ? 0.6 + 0.4 * $this->next() : 0.15 + 0.5 * $this->next());
                }
                $set[$a] += (1 - exp(-$dt / 0.03)) * ($goal[$a] - $set[$a]);
            }
            if (0 === $k % (int) ($rate / 4)) {
                $level = $throttle + 6 * (2 * $this->next() - 1);
            }
            $u = $c = [];
            foreach ([0, 1, 2] as $a) {
                $seen = $w[$a] + 1.2 * $this->gauss();
                $e = $set[$a] - $seen;
                $i[$a] = max(-20.0, min(20.0, $i[$a] + 0.9 * $e * $dt));
                $c[$a] = max(
                    -45.0,
                    min(45.0, [0.16, 0.18, 0.5][$a] * $e + $i[$a] - (([0.0035, 0.004, 0.0][$a] * ($seen - $before[$a])) / $dt) * 0.25),
                );
                $before[$a] += 0.25 * ($seen - $before[$a]);
            }
            $push = [0.0, 0.0, 0.0];
            if (null !== $lost && $t >= $lostAt) {
                $health *= exp(-$dt / 0.012);
            }
            foreach ($places as $m => $place) {
                $u[$m] = max(5.0, min(100.0, $level + $mix[$m][0] * $c[0] + $mix[$m][1] * $c[1] + $mix[$m][2] * $c[2]));
                $speed[$m] += (1 - exp(-$dt / 0.022)) * ($u[$m] / 100 - $speed[$m]);
                $thrust = $speed[$m] ** 2 * ($place === $lost ? $health : 1.0);
                foreach ([0, 1, 2] as $a) {
                    $push[$a] += $effect[$m][$a] * $thrust;
                }
            }
            $row = [\sprintf('%.6F', $t), \sprintf('%.2F', $level)];
            foreach ([0, 1, 2] as $a) {
                $row[] = \sprintf('%.3F', $set[$a]);
            }
            foreach ([0, 1, 2] as $a) {
                $row[] = \sprintf('%.3F', $w[$a] + 1.2 * $this->gauss());
            }
            foreach ($u as $v) {
                $row[] = \sprintf('%.2F', $v);
            }
            foreach ($withRpm ? $speed : [] as $m => $s) {
                $row[] = \sprintf('%.0F', 24000 * $s * ($places[$m] === $lost ? sqrt($health) : 1.0));
            }
            $rows[] = implode(',', $row);
            foreach ([0, 1, 2] as $a) {
                $w[$a] += $dt * ($push[$a] - [1.5, 1.5, 2.5][$a] * $w[$a] + 60 * $this->gauss());
            }
            if (max(abs($w[0]), abs($w[1]), abs($w[2])) > 2600) {
                break;
            }
        }
        $head =
            '' !== $header
                ? $header
                : implode(',', [
                    'time_s',
                    'throttle_pct',
                    'setpoint_roll_dps',
                    'setpoint_pitch_dps',
                    'setpoint_yaw_dps',
                    'rate_filtered_roll_dps',
                    'rate_filtered_pitch_dps',
                    'rate_filtered_yaw_dps',
                    ...array_map(static fn (string $p): string => "output_{$p}_pct", $places),
                    ...$withRpm ? array_map(static fn (string $p): string => "rpm_$p", $places) : [],
                ]);

        return self::read($head."\n".implode("\n", $rows)."\n");
    }

    /** @return array<string, array{float, float, int}> */
    public static function quadX(): array
    {
        return [
            'front_right' => [0.7, 0.7, -1],
            'rear_right' => [-0.7, 0.7, 1],
            'rear_left' => [-0.7, -0.7, -1],
            'front_left' => [0.7, -0.7, 1],
        ];
    }

    /** @return array<string, array{float, float, int}> */
    public static function hexaX(): array
    {
        return [
            'front_right' => [0.87, 0.5, -1],
            'right' => [0.0, 1.0, 1],
            'rear_right' => [-0.87, 0.5, -1],
            'rear_left' => [-0.87, -0.5, 1],
            'left' => [0.0, -1.0, -1],
            'front_left' => [0.87, -0.5, 1],
        ];
    }

    /**
     * Signals of known make as a log: each a list of values at the rate.
     *
     * @param array<string, list<float>> $traces by column name
     */
    public static function of(array $traces, float $rate): FlightLog
    {
        $lines = [implode(',', ['time_s', ...array_keys($traces)])];
        $n = \count(reset($traces) ?: []);
        $columns = array_values($traces);
        for ($i = 0; $i < $n; ++$i) {
            $row = \sprintf('%.6F', $i / $rate);
            foreach ($columns as $column) {
                $row .= \sprintf(',%.4F', $column[$i]);
            }
            $lines[] = $row;
        }

        return self::read(implode("\n", $lines)."\n");
    }

    public static function read(string $csv): FlightLog
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'known');
        file_put_contents($path, $csv);
        try {
            return LogReader::readFile($path);
        } finally {
            unlink($path);
        }
    }

    /** 0 to 1, by a linear congruential generator. */
    public function next(): float
    {
        $this->state = ($this->state * 1103515245 + 12345) & 0x7FFFFFFF;

        return (($this->state >> 8) & 0x3FFFFF) / 0x400000;
    }

    public function gauss(): float
    {
        $sum = -6.0;
        for ($i = 0; $i < 12; ++$i) {
            $sum += $this->next();
        }

        return $sum;
    }
}
