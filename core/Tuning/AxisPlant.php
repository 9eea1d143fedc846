<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Lag\Lag;
use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Signal\RealFft;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Statistics;

/**
 * What one axis does with its command, apart from the gains: G(s) = b · e^(−sT) / ((s + d)(τs + 1)), output % to deg/s.
 *
 * Identified in closed loop with the setpoint as instrument: G = S(setpoint, rate) / S(setpoint, command), which
 * noise and gusts inside the loop do not bias (Söderström and Stoica, Instrumental Variable Methods, 1983).
 */
final readonly class AxisPlant
{
    private const ANALYSIS_RATE_HZ = 1000.0;
    private const WINDOW_S = 2.0;
    private const FROM_HZ = 1.5;
    private const TOP_HZ = 45.0;

    /** Drag of the air on rotation, 1/s; far below any loop's bandwidth, so a fixed figure does. */
    public const DRAG = 1.0;

    private function __construct(public float $effectiveness, public float $lagS, public float $deadS, public float $misfit)
    {
    }

    public static function known(float $effectiveness, float $lagS, float $deadS, float $misfit): self
    {
        return new self($effectiveness, $lagS, $deadS, $misfit);
    }

    /**
     * @return self|null null where the log lacks the setpoint, the measured rate or the terms of the command
     *
     * @throws SignalError when the flight does not excite the axis enough
     */
    public static function in(FlightLog $log, Axis $axis): ?self
    {
        [$rate, $set] = [Traces::measuredRate($axis), Traces::setpoint($axis)];
        if (!$log->has($rate) || !$log->has($set) || !$log->has(Traces::term('p', $axis))) {
            return null;
        }
        $command = [];
        $factor = self::factor($log->clock->rateHz);
        foreach (Traces::TERMS as $term) {
            $name = Traces::term($term, $axis);
            foreach ($log->has($name) ? $log->decimatedRuns($name, $factor) : [] as $r => $run) {
                $command[$r] = isset($command[$r]) ? array_map(static fn (float $a, float $b): float => $a + $b, $command[$r], $run) : $run;
            }
        }

        return self::identify(
            $log->decimatedRuns($set, $factor),
            array_values($command),
            $log->decimatedRuns($rate, $factor),
            $log->clock->rateHz / $factor,
        );
    }

    private static function factor(float $rateHz): int
    {
        return max(1, (int) floor($rateHz / self::ANALYSIS_RATE_HZ));
    }

    /**
     * @param list<list<float>> $setpoint gap-free runs, deg/s
     * @param list<list<float>> $command  sum of P, I, D and feed-forward, %
     * @param list<list<float>> $rate     deg/s
     *
     * @throws SignalError when the flight does not excite the axis enough
     */
    public static function identify(array $setpoint, array $command, array $rate, float $rateHz): self
    {
        $factor = self::factor($rateHz);
        $fs = $rateHz / $factor;
        $n = Fft::sizeFor((int) ceil(self::WINDOW_S * $fs * 0.8));
        [$fft, $alone] = [Fft::ofSize($n), RealFft::ofSize($n)];
        $window = HannWindow::ofSize($n)->weights;
        $first = max(1, (int) ceil((self::FROM_HZ * $n) / $fs));
        $last = min($n >> 1, (int) floor((self::TOP_HZ * $n) / $fs));
        $yr = $yi = $ur = $ui = $xx = array_fill(0, $last + 1, 0.0);
        $windows = 0;
        foreach ($setpoint as $r => $x) {
            $x = Statistics::decimated($x, $factor);
            $u = Statistics::decimated($command[$r], $factor);
            $y = Statistics::decimated($rate[$r], $factor);
            for ($at = 0; $at + $n <= \count($x); $at += $n >> 1) {
                $a = \array_slice($x, $at, $n);
                $b = \array_slice($u, $at, $n);
                $c = \array_slice($y, $at, $n);
                foreach ($window as $i => $w) {
                    $a[$i] *= $w;
                    $b[$i] *= $w;
                    $c[$i] *= $w;
                }
                [$ar, $ai, $br, $bi] = $fft->twoReal($a, $b);
                [$cr, $ci] = $alone->forward($c);
                for ($k = $first; $k <= $last; ++$k) {
                    $xx[$k] += $ar[$k] * $ar[$k] + $ai[$k] * $ai[$k];
                    $ur[$k] += $ar[$k] * $br[$k] + $ai[$k] * $bi[$k];
                    $ui[$k] += $ar[$k] * $bi[$k] - $ai[$k] * $br[$k];
                    $yr[$k] += $ar[$k] * $cr[$k] + $ai[$k] * $ci[$k];
                    $yi[$k] += $ar[$k] * $ci[$k] - $ai[$k] * $cr[$k];
                }
                ++$windows;
            }
        }
        if ($windows < 3) {
            throw AxisNotExcited::tooShort($windows);
        }
        $omega = $gr = $gi = $weight = [];
        $strongest = max([0.0, ...\array_slice($xx, $first)]);
        for ($k = $first; $k <= $last; ++$k) {
            $d = $ur[$k] * $ur[$k] + $ui[$k] * $ui[$k];
            if ($d <= 0 || $xx[$k] < 1e-5 * $strongest || $xx[$k] / $windows < 1.0) {
                continue;
            }
            $omega[] = (2 * \M_PI * $k * $fs) / $n;
            $gr[] = ($yr[$k] * $ur[$k] + $yi[$k] * $ui[$k]) / $d;
            $gi[] = ($yi[$k] * $ur[$k] - $yr[$k] * $ui[$k]) / $d;
            $weight[] = sqrt($xx[$k] / $strongest);
        }
        if (\count($omega) < 8) {
            throw AxisNotExcited::movedTooLittle(\count($omega));
        }

        return self::fit($omega, $gr, $gi, $weight);
    }

    /** To the digits that are kept. */
    public function rounded(): self
    {
        return new self(round($this->effectiveness, 4), round($this->lagS, 6), round($this->deadS, 6), round($this->misfit, 4));
    }

    /** @return array{gain: float, lag_s: float, dead_s: float, misfit: float} */
    public function toArray(): array
    {
        return ['gain' => $this->effectiveness, 'lag_s' => $this->lagS, 'dead_s' => $this->deadS, 'misfit' => $this->misfit];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->number('gain'), $data->number('lag_s'), $data->number('dead_s'), $data->number('misfit'));
    }

    /** @return array{float, float} G at ω rad/s, real and imaginary part */
    public function response(float $omega): array
    {
        [$r, $i] = self::shape($omega, $this->lagS, $this->deadS);

        return [$this->effectiveness * $r, $this->effectiveness * $i];
    }

    /**
     * Lag and dead time by a search that narrows; the gain follows from least squares of the relative error.
     *
     * @param list<float> $omega
     * @param list<float> $gr
     * @param list<float> $gi
     * @param list<float> $weight
     */
    private static function fit(array $omega, array $gr, array $gi, array $weight): self
    {
        $best = [\INF, 1.0, 0.02, 0.003];
        $lag = 0.025;
        $dead = 0.004;
        foreach ([[0.02, 0.004], [0.006, 0.0012], [0.002, 0.0004], [0.0006, 0.00012]] as [$lagStep, $deadStep]) {
            [$lagMid, $deadMid] = [$lag, $dead];
            for ($i = -3; $i <= 3; ++$i) {
                for ($j = -3; $j <= 3; ++$j) {
                    $l = max(0.001, $lagMid + $i * $lagStep);
                    $t = max(0.0, $deadMid + $j * $deadStep);
                    $num = $den = 0.0;
                    $shapes = [];
                    foreach ($omega as $k => $w) {
                        [$r, $m] = self::shape($w, $l, $t);
                        $q = $weight[$k] / max(1e-12, $gr[$k] * $gr[$k] + $gi[$k] * $gi[$k]);
                        $num += $q * ($r * $gr[$k] + $m * $gi[$k]);
                        $den += $q * ($r * $r + $m * $m);
                        $shapes[] = [$r, $m, $q];
                    }
                    $effectiveness = max(1e-6, $num / $den);
                    $cost = $all = 0.0;
                    foreach ($shapes as $k => [$r, $m, $q]) {
                        $cost += $q * (($gr[$k] - $effectiveness * $r) ** 2 + ($gi[$k] - $effectiveness * $m) ** 2);
                        $all += $weight[$k];
                    }
                    if ($cost / $all < $best[0]) {
                        $best = [$cost / $all, $effectiveness, $l, $t];
                        [$lag, $dead] = [$l, $t];
                    }
                }
            }
        }

        return new self($best[1], $best[2], $best[3], sqrt($best[0]));
    }

    /** @return array{float, float} */
    private static function shape(float $w, float $lag, float $dead): array
    {
        // Denominator (d + iω)(1 + iωτ), numerator e^(−iωT).
        $dr = self::DRAG - $w * $w * $lag;
        $di = $w + self::DRAG * $w * $lag;
        $d = $dr * $dr + $di * $di;
        $c = cos($w * $dead);
        $s = -sin($w * $dead);

        return [($c * $dr + $s * $di) / $d, ($s * $dr - $c * $di) / $d];
    }
}
