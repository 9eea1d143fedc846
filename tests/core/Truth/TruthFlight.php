<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Truth;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Tests\core\Report\KnownFlight;

/**
 * A flight with known truth: a rigid body with gyroscopic coupling, rotors with a law of speed and lags of their own whose
 * acceleration turns the craft back, ends of the outputs, a frame that rings with its rotors, wash of its own props, a loop that
 * comes late, and a log that is rounded. It shares no code with core or bench; it comes in as a CSV like anybody's.
 */
final class TruthFlight
{
    private const LOOP_HZ = 1000;
    private const IDLE_PCT = 5.0;

    private int $state;

    /** What the motor that fails should have pushed meanwhile, on average, over its push at hover; 0 where its flight ended before. */
    public float $toLose = 0.0;

    /** @var list<string> rows of the log */
    private array $rows = [];

    /** @param bool $withTerms whether P and D are logged */
    public function __construct(private readonly TruthCraft $craft, int $seed, private readonly bool $withTerms = false)
    {
        $this->state = ($seed * 2654435761 + 97) & 0x7FFFFFFF;
        for ($i = 0; $i < 8; ++$i) {
            $this->next();
        }
    }

    /**
     * @param string|null $place  whose motor it is, where the fault is one of a motor
     * @param float       $lastsS how long a motor's fault stands
     */
    public function fly(
        TruthMoves $moves,
        float $seconds,
        TruthFault $fault = TruthFault::None,
        ?string $place = null,
        float $atS = 0.0,
        float $lastsS = 1e9,
        bool $withRpm = false,
        int $everyMs = 1,
    ): FlightLog {
        $this->simulate($moves, $seconds, $fault, $place, $atS, $lastsS, $withRpm, $everyMs);
        $places = array_keys($this->craft->motors);
        $head = implode(',', [
            'time_s',
            'throttle_pct',
            'battery_v',
            ...array_map(static fn (string $a): string => "setpoint_{$a}_dps", ['roll', 'pitch', 'yaw']),
            ...array_map(static fn (string $a): string => "rate_filtered_{$a}_dps", ['roll', 'pitch', 'yaw']),
            ...array_map(static fn (string $p): string => "output_{$p}_pct", $places),
            ...$withRpm ? array_map(static fn (string $p): string => "rpm_$p", $places) : [],
            ...$this->withTerms ? ['term_p_roll', 'term_p_pitch', 'term_p_yaw', 'term_d_roll', 'term_d_pitch', 'term_d_yaw'] : [],
        ]);

        return KnownFlight::read($head."\n".implode("\n", $this->rows)."\n");
    }

    private function simulate(
        TruthMoves $moves,
        float $seconds,
        TruthFault $fault,
        ?string $place,
        float $atS,
        float $lastsS,
        bool $withRpm,
        int $everyMs,
    ): void {
        $c = $this->craft;
        $dt = 1 / self::LOOP_HZ;
        $n = \count($c->motors);
        $deg = 180 / \M_PI;
        [$ix, $iy, $iz] = $c->inertia;
        $x = array_column($c->motors, 0);
        $y = array_column($c->motors, 1);
        $spin = array_column($c->motors, 2);
        $sick = null === $place ? -1 : (int) array_search($place, array_keys($c->motors), true);
        $reachX = max(array_map(abs(...), $x));
        $reachY = max(array_map(abs(...), $y));
        $fullRad = $c->fullRpm * 2 * \M_PI / 60;
        $kt = $c->fullN / $fullRad ** 2;
        $hover = $c->hoverPct() / 100;
        // Gains as a tuner would find them: acceleration per % of correction, at hover.
        $slope = 2 * $c->power * $hover ** (2 * $c->power - 1) / 100;
        $sumX = $sumY = 0.0;
        foreach ($x as $m => $forward) {
            $sumX += abs($forward) * abs($forward) / $reachX;
            $sumY += abs($y[$m]) * abs($y[$m]) / $reachY;
        }
        $gain = [
            $deg * $c->fullN * $slope * $sumY / $ix,
            $deg * $c->fullN * $slope * $sumX / $iy,
            $deg * $c->fullN * $slope * $c->yawM * $n / $iz,
        ];
        $kp = [$c->crossing / $gain[0], $c->crossing / $gain[1], 0.5 * $c->crossing / $gain[2]];
        $ki = [$kp[0] * 4, $kp[1] * 4, $kp[2] * 3];
        $kd = [$kp[0] * $c->dShare * $c->upS, $kp[1] * $c->dShare * $c->upS, 0.0];
        $omega = array_fill(0, $n, $fullRad * $hover ** $c->power);
        $thrust = array_fill(0, $n, $kt * $omega[0] ** 2);
        $imbalance = [];
        $turned = [];
        for ($m = 0; $m < $n; ++$m) {
            $imbalance[] = 0.5 + $this->next();
            $turned[] = 6.28 * $this->next();
        }
        $w = $set = $goal = $until = $sum = $slow = $before = $gust = $wash = $spike = [0.0, 0.0, 0.0];
        $ring = [[0.0, 0.0], [0.0, 0.0], [0.0, 0.0]];
        $frameHz = 140 + 60 * $this->next();
        $delayed = array_fill(0, 3, array_fill(0, $n, 100 * $hover));
        $level = $aim = 100 * $hover;
        $nextLevel = 0.0;
        $washes = $toLose = 0.0;
        $sickSteps = 0;
        $hits = TruthFault::Collision === $fault ? $this->times($atS, $seconds) : [];
        $glitches = TruthFault::Glitch === $fault ? $this->times($atS, $seconds) : [];
        $knock = [0.0, 0.0, 0.0];
        $knockUntil = -1.0;
        $volt = 16.6;
        $rows = [];
        for ($k = 0, $steps = (int) ($seconds * self::LOOP_HZ); $k < $steps; ++$k) {
            $t = $k * $dt;
            // The pilot.
            for ($a = 0; $a < 3; ++$a) {
                if ($t >= $until[$a]) {
                    $big = 2 === $a ? 0.35 : 1.0;
                    $rest = TruthMoves::Reversals !== $moves && $this->next() < 0.35;
                    $side = TruthMoves::Reversals === $moves ? ($goal[$a] > 0 ? -1 : 1) : ($this->next() < 0.5 ? -1 : 1);
                    $goal[$a] = $rest ? 0.0 : $side * $big * $moves->dps() * (0.35 + 0.65 * $this->next());
                    $until[$a] = $t + $moves->holds() * (0.5 + $this->next());
                }
                $set[$a] += (1 - exp(-$dt / 0.018)) * ($goal[$a] - $set[$a]);
            }
            if ($t >= $nextLevel) {
                $aim = $this->throttle($moves, 100 * $hover);
                $nextLevel = $t + (TruthMoves::Cruise === $moves ? 0.5 : 0.35) * (0.5 + $this->next()) * 2;
            }
            $change = (1 - exp(-$dt / 0.03)) * ($aim - $level);
            $level += $change;
            // Wash: after a chop the craft sinks into its own air.
            $washes = max($washes * exp(-$dt / 0.4), $change < -0.25 && $level < 70 * $hover ? 1.0 : 0.0);
            // What the board sees.
            for ($a = 0; $a < 3; ++$a) {
                $spike[$a] = 0.0;
            }
            foreach ($glitches as $at) {
                if ($k === (int) round($at * self::LOOP_HZ)) {
                    $spike[$k % 3] = ($this->next() < 0.5 ? -1 : 1) * (500 + 1400 * $this->next());
                }
            }
            $out = [];
            $term = $pTerm = $dTerm = [0.0, 0.0, 0.0];
            for ($a = 0; $a < 3; ++$a) {
                $raw = $w[$a] + $ring[$a][0] + 0.8 * $this->gauss() + $spike[$a];
                $slow[$a] += (1 - exp(-$dt * 2 * \M_PI * $c->filterHz)) * ($raw - $slow[$a]);
                $e = $set[$a] - $slow[$a];
                $sum[$a] = max(-25.0, min(25.0, $sum[$a] + $ki[$a] * $e * $dt));
                $pTerm[$a] = $kp[$a] * $e;
                $dTerm[$a] = -$kd[$a] * ($slow[$a] - $before[$a]) / $dt;
                $term[$a] = $pTerm[$a] + $sum[$a] + $dTerm[$a];
                $before[$a] = $slow[$a];
            }
            $high = -1e9;
            $low = 1e9;
            for ($m = 0; $m < $n; ++$m) {
                $v = -$y[$m] / $reachY * $term[0] + $x[$m] / $reachX * $term[1] - $spin[$m] * $term[2];
                $out[$m] = $v;
                $high = max($high, $v);
                $low = min($low, $v);
            }
            // Air mode: what is asked of turning comes before what is asked of lift.
            $room = 100 - self::IDLE_PCT;
            $share = $high - $low > $room ? $room / ($high - $low) : 1.0;
            $lift = max(self::IDLE_PCT - $share * $low, min(100 - $share * $high, $level));
            for ($m = 0; $m < $n; ++$m) {
                $out[$m] = round(max(self::IDLE_PCT, min(100.0, $lift + $share * $out[$m])), 1);
            }
            $delayed[] = $out;
            $now = array_shift($delayed);
            // Rotors.
            $torque = [0.0, 0.0, 0.0];
            $load = 0.0;
            foreach ($now as $v) {
                $load += $v / 100 / $n;
            }
            $volt = 16.6 * (1 - $c->sag * $load ** 1.5) - 1.6 * $t / max(60.0, $seconds);
            $shake = 0.0;
            for ($m = 0; $m < $n; ++$m) {
                $sickNow = $m === $sick && $t >= $atS && $t < $atS + $lastsS;
                $to = $fullRad * ($volt / 16.6) * (($now[$m] ?? 0.0) / 100) ** $c->power;
                if ($sickNow) {
                    $toLose += $to * $to / ($fullRad * $hover ** $c->power) ** 2;
                    ++$sickSteps;
                }
                if ($sickNow && TruthFault::MotorStops === $fault) {
                    $to = 0.0;
                } elseif ($sickNow && TruthFault::MotorHalf === $fault) {
                    $to *= 0.7071;
                }
                $was = $omega[$m];
                $tau = $to > $was ? $c->upS : $c->downS;
                $omega[$m] += (1 - exp(-$dt / $tau)) * ($to - $was);
                $thrust[$m] = $kt * $omega[$m] ** 2 * ($sickNow && TruthFault::PropHalf === $fault ? 0.5 : 1.0);
                $torque[0] -= $y[$m] * $thrust[$m];
                $torque[1] += $x[$m] * $thrust[$m];
                $torque[2] -= $spin[$m] * ($c->yawM * $thrust[$m] + $c->rotor * ($omega[$m] - $was) / $dt);
                $turned[$m] += $omega[$m] * $dt;
                $shake += $imbalance[$m] * ($omega[$m] / $fullRad) ** 2 * sin($turned[$m]);
            }
            // Collision: a knock of a few milliseconds, and rotors that touched lose some of their speed.
            foreach ($hits as $at) {
                if ($k === (int) round($at * self::LOOP_HZ)) {
                    $knockUntil = $t + 0.003 + 0.012 * $this->next();
                    for ($a = 0; $a < 3; ++$a) {
                        $knock[$a] = $this->gauss() * (2 === $a ? 200 : 450) / ($knockUntil - $t);
                    }
                    for ($m = 0; $m < $n; ++$m) {
                        $omega[$m] *= $this->next() < 0.4 ? 0.55 + 0.35 * $this->next() : 1.0;
                    }
                }
            }
            // Body: I ω' = τ − ω × Iω.
            [$p, $q, $r] = [$w[0] / $deg, $w[1] / $deg, $w[2] / $deg];
            $acceleration = [
                $deg * ($torque[0] - ($iz - $iy) * $q * $r) / $ix,
                $deg * ($torque[1] - ($ix - $iz) * $p * $r) / $iy,
                $deg * ($torque[2] - ($iy - $ix) * $p * $q) / $iz,
            ];
            for ($a = 0; $a < 3; ++$a) {
                $gust[$a] += (-$gust[$a] / 0.35) * $dt + 0.06 * $gain[$a] * 8 * sqrt($dt) * $this->gauss();
                $wash[$a] += (1 - exp(-$dt * 2 * \M_PI * 14)) * ($gain[$a] * 45 * $washes * $this->gauss() - $wash[$a]);
                $ring[$a] = $this->rung($ring[$a], $frameHz * (1 + 0.2 * $a), 0.05, 25.0 * $shake, $dt);
                $more = $t < $knockUntil ? $knock[$a] : 0.0;
                $w[$a] += $dt * ($acceleration[$a] - $c->drag[$a] * $w[$a] + $gust[$a] + $wash[$a] + $more);
            }
            if (0 === $k % $everyMs) {
                $row = $this->row($t, $level, $volt, $set, $slow, $out, $withRpm ? $omega : []);
                $rows[] = $row.($this->withTerms ? \sprintf(',%.2F,%.2F,%.2F,%.2F,%.2F,%.2F', ...$pTerm, ...$dTerm) : '');
            }
            if (max(abs($w[0]), abs($w[1]), abs($w[2])) > 2000) {
                break;
            }
        }
        $this->rows = $rows;
        $this->toLose = $toLose / max(1, $sickSteps);
    }

    /**
     * @param list<float>|array<int, float> $out
     * @param array<int, float>             $omega
     * @param array<int, float>             $set
     * @param array<int, float>             $seen
     */
    private function row(float $t, float $level, float $volt, array $set, array $seen, array $out, array $omega): string
    {
        $row = \sprintf('%.4F,%.1F,%.2F,%d,%d,%d', $t, $level, $volt, round($set[0]), round($set[1]), round($set[2]));
        $row .= \sprintf(',%.1F,%.1F,%.1F', $seen[0], $seen[1], $seen[2]);
        foreach ($out as $v) {
            $row .= ','.$v;
        }
        foreach ($omega as $v) {
            $row .= ','.(100 * (int) round($v * 60 / (2 * \M_PI) / 100));
        }

        return $row;
    }

    private function throttle(TruthMoves $moves, float $hover): float
    {
        $u = $this->next();

        return match ($moves) {
            TruthMoves::Cruise => $hover * (0.85 + 0.4 * $u),
            TruthMoves::Hard => $u < 0.2 ? 0.4 * $hover : ($u < 0.4 ? 90.0 : $hover * (0.8 + 0.9 * $this->next())),
            TruthMoves::Reversals => $hover * (0.9 + 0.5 * $u),
            TruthMoves::Punches => $u < 0.5 ? 100.0 : $hover * (0.7 + 0.5 * $this->next()),
            TruthMoves::Chops => $u < 0.5 ? 0.25 * $hover : $hover * (1.2 + 0.6 * $this->next()),
        };
    }

    /** @return list<float> five moments from a time on */
    private function times(float $from, float $seconds): array
    {
        $at = [];
        for ($i = 0; $i < 5; ++$i) {
            $at[] = $from + ($i + 0.1 + 0.8 * $this->next()) * ($seconds - $from) / 5;
        }

        return $at;
    }

    /**
     * A frame's mode a step on.
     *
     * @param array{float, float} $s
     *
     * @return array{float, float}
     */
    private function rung(array $s, float $hz, float $damping, float $push, float $dt): array
    {
        $w = 2 * \M_PI * $hz;
        $v = $s[1] + $dt * ($w * $w * ($push - $s[0]) - 2 * $damping * $w * $s[1]);

        return [$s[0] + $dt * $v, $v];
    }

    /** 0 to 1. */
    public function next(): float
    {
        $this->state = ($this->state * 1103515245 + 12345) & 0x7FFFFFFF;

        return (($this->state >> 8) & 0x3FFFFF) / 0x400000;
    }

    public function gauss(): float
    {
        return 1.2247 * (2 * ($this->next() + $this->next() + $this->next() + $this->next()) - 4) * 0.7071;
    }
}
