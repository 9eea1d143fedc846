<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Signal\LinearSystem;
use Ortholex\Core\Signal\SignalError;

/**
 * A second-order loop with dead time, a zero and a real pole, fitted to a measured frequency response:
 * H(s) = K · e^(−sτ) · (1 + s·Tz) · ω² / ((s² + 2ζωs + ω²)(1 + s·Tp)).
 *
 * It stands in where the stick excites nothing, so that regularisation draws the response towards a plausible
 * loop rather than towards zero. Fitted by Levenberg–Marquardt on the weighted complex residual.
 */
final readonly class LoopModel
{
    /** A part of the points: so many from the lowest on, then every so manieth. */
    private const ALL_OF = 24;

    private const THEN_EVERY = 3;

    /** @param array<int, float> $p K, ln ω, ln ζ, τ, Tz, Tp */
    private function __construct(private array $p, public float $misfit)
    {
    }

    /**
     * @param list<float> $omega  rad/s, ascending, all above 0
     * @param list<float> $re     response
     * @param list<float> $im
     * @param list<float> $weight inverse variance of each point
     *
     * @throws SignalError when there are too few points to fit
     */
    public static function fit(array $omega, array $re, array $im, array $weight): self
    {
        if (\count($omega) < 8) {
            throw NoStepResponse::tooFewFrequencies();
        }
        $best = null;
        // Where to begin, a part of the points tells.
        [$someOmega, $someRe, $someIm, $someWeight] = array_map(self::some(...), [$omega, $re, $im, $weight]);
        foreach ([[30.0, 0.4], [60.0, 0.8], [120.0, 0.5], [220.0, 0.8]] as [$natural, $damping]) {
            $start = [1.0, log($natural), log($damping), 0.004, 0.0, 0.0];
            // The plain loop first; zero and pole only once it stands, or they fight over the dead time.
            $plain = self::descend($start, $someOmega, $someRe, $someIm, $someWeight, 4, 20);
            if (null === $best || $plain->misfit < $best->misfit) {
                $best = $plain;
            }
        }

        return self::descend($best->p, $omega, $re, $im, $weight, 6, 30);
    }

    /**
     * A few steps from this fit to slightly different data, as a bootstrap needs.
     *
     * @param list<float> $omega
     * @param list<float> $re
     * @param list<float> $im
     * @param list<float> $weight
     */
    public function refit(array $omega, array $re, array $im, array $weight): self
    {
        return self::descend($this->p, ...array_map(self::some(...), [$omega, $re, $im, $weight]), free: 6, rounds: 4);
    }

    /**
     * All of the first 24, where the stick moves most, then every third: plenty to follow.
     *
     * @param list<float> $values
     *
     * @return list<float>
     */
    private static function some(array $values): array
    {
        $some = \array_slice($values, 0, self::ALL_OF);
        for ($i = self::ALL_OF, $n = \count($values); $i < $n; $i += self::THEN_EVERY) {
            $some[] = $values[$i];
        }

        return $some;
    }

    /** @return list<float> K, ln ω, ln ζ, τ, Tz, Tp: what known() takes */
    public function parameters(): array
    {
        return array_values($this->p);
    }

    /**
     * A loop whose parameters were kept.
     *
     * @param array<mixed> $parameters as parameters() gave them
     *
     * @throws SignalError when they are not six numbers
     */
    public static function known(array $parameters): self
    {
        $p = array_map('floatval', array_filter($parameters, 'is_numeric'));
        if (6 !== \count($p) || 6 !== \count($parameters)) {
            throw LoopParametersUnknown::of(\count($p));
        }

        return new self(array_values($p), 0.0);
    }

    /** @return array{float, float} real and imaginary part at ω rad/s */
    public function response(float $omega): array
    {
        [[$re], [$im]] = $this->responses([$omega]);

        return [$re, $im];
    }

    /**
     * @param list<float> $omega rad/s
     *
     * @return array{list<float>, list<float>} real and imaginary parts
     */
    public function responses(array $omega): array
    {
        return self::along($this->p, $omega);
    }

    /**
     * What the loop makes of a signal, sample by sample: dead time by a straight line between samples, the rest by the bilinear
     * transform.
     *
     * @param list<float> $x at rest before its first sample
     *
     * @return list<float>
     */
    public function answer(array $x, float $rateHz): array
    {
        [$gain, $natural, $damping, $dead, $zero, $pole] = $this->p;
        [$natural, $damping] = [exp($natural), exp($damping)];
        $k = 2 * $rateHz;
        $w2 = $natural * $natural;
        $a0 = $k * $k + 2 * $damping * $natural * $k + $w2;
        $a1 = (2 * $w2 - 2 * $k * $k) / $a0;
        $a2 = ($k * $k - 2 * $damping * $natural * $k + $w2) / $a0;
        $b0 = ($gain * $w2 * (1 + $k * $zero)) / $a0;
        $b1 = (2 * $gain * $w2) / $a0;
        $b2 = ($gain * $w2 * (1 - $k * $zero)) / $a0;
        $c0 = 1 / (1 + $k * $pole);
        $c1 = (1 - $k * $pole) * $c0;
        $late = $dead * $rateHz;
        $whole = (int) floor($late);
        $part = $late - $whole;
        $u1 = $u2 = $v1 = $v2 = $y1 = 0.0;
        $out = [];
        foreach ($x as $i => $unused) {
            $near = $i >= $whole ? $x[$i - $whole] : 0.0;
            $far = $i > $whole ? $x[$i - $whole - 1] : 0.0;
            $u = $near + $part * ($far - $near);
            $v = $b0 * $u + $b1 * $u1 + $b2 * $u2 - $a1 * $v1 - $a2 * $v2;
            $y1 = $c0 * ($v + $v1) - $c1 * $y1;
            $out[] = $y1;
            $u2 = $u1;
            $u1 = $u;
            $v2 = $v1;
            $v1 = $v;
        }

        return $out;
    }

    /** @return list<float> its unit step, sample i at i·stepS */
    public function unitStep(float $stepS, int $count): array
    {
        $fine = 4;
        // A step between two samples stands half on either: the ramp of the bilinear transform is centred on zero.
        $x = array_fill(0, $count * $fine, 1.0);
        $x[0] = 0.5;
        $y = $this->answer($x, $fine / $stepS);
        $out = [];
        for ($i = 0; $i < $count; ++$i) {
            $out[] = $y[$i * $fine];
        }

        return $out;
    }

    /**
     * @param array<int, float> $p
     * @param list<float>       $omega
     *
     * @return array{list<float>, list<float>} real and imaginary parts of the response
     */
    private static function along(array $p, array $omega): array
    {
        [$gain, , , $dead, $zero, $pole] = $p;
        [$natural, $damping] = [exp($p[1]), exp($p[2])];
        $re = $im = $omega;
        for ($i = 0, $n = \count($omega); $i < $n; ++$i) {
            $w = $omega[$i];
            $u = $w / $natural;
            $real = 1 - $u * $u;
            $imaginary = 2 * $damping * $u;
            $lag = $w * $pole;
            $dr = $real - $imaginary * $lag;
            $di = $imaginary + $real * $lag;
            $d = $dr * $dr + $di * $di;
            $c = $gain * cos($w * $dead);
            $s = -$gain * sin($w * $dead);
            $lead = $w * $zero;
            $nr = $c - $s * $lead;
            $ni = $s + $c * $lead;
            $re[$i] = ($nr * $dr + $ni * $di) / $d;
            $im[$i] = ($ni * $dr - $nr * $di) / $d;
        }

        return [array_values($re), array_values($im)];
    }

    /**
     * How the response changes with each parameter: the response times the derivative of its logarithm.
     *
     * @param array<int, float> $p
     * @param float             $hr real part of the response at ω
     * @param float             $hi imaginary part
     *
     * @return array{list<float>, list<float>} real and imaginary parts
     */
    private static function slopes(array $p, float $natural, float $damping, float $omega, float $hr, float $hi): array
    {
        $u = $omega / $natural;
        $dr = 1 - $u * $u;
        $di = 2 * $damping * $u;
        $d = $dr * $dr + $di * $di;
        $zero = $omega * $p[4];
        $z = 1 + $zero * $zero;
        $pole = $omega * $p[5];
        $t = 1 + $pole * $pole;
        $lr = [1 / $p[0], ($di * $di - 2 * $u * $u * $dr) / $d, -$di * $di / $d, 0.0, ($omega * $zero) / $z, (-$omega * $pole) / $t];
        $li = [0.0, ($di * (2 * $u * $u + $dr)) / $d, (-$di * $dr) / $d, -$omega, $omega / $z, -$omega / $t];

        return [
            [
                $hr * $lr[0],
                $hr * $lr[1] - $hi * $li[1],
                $hr * $lr[2] - $hi * $li[2],
                -$hi * $li[3],
                $hr * $lr[4] - $hi * $li[4],
                $hr * $lr[5] - $hi * $li[5],
            ],
            [
                $hi * $lr[0],
                $hr * $li[1] + $hi * $lr[1],
                $hr * $li[2] + $hi * $lr[2],
                $hr * $li[3],
                $hr * $li[4] + $hi * $lr[4],
                $hr * $li[5] + $hi * $lr[5],
            ],
        ];
    }

    /**
     * @param array<int, float> $p
     * @param list<float>                                     $omega
     * @param list<float>                                     $re
     * @param list<float>                                     $im
     * @param list<float>                                     $weight
     */
    private static function descend(array $p, array $omega, array $re, array $im, array $weight, int $free, int $rounds): self
    {
        [$modelRe, $modelIm] = self::along($p, $omega);
        $cost = self::cost($modelRe, $modelIm, $re, $im, $weight);
        $damp = 1e-2;
        for ($round = 0; $round < $rounds; ++$round) {
            // The lower half of a symmetric matrix, row after row.
            $a = array_fill(0, intdiv($free * ($free + 1), 2), 0.0);
            $g = array_fill(0, $free, 0.0);
            [$natural, $damping] = [exp($p[1]), exp($p[2])];
            foreach ($omega as $i => $w) {
                [$mr, $mi] = [$modelRe[$i], $modelIm[$i]];
                $er = $re[$i] - $mr;
                $ei = $im[$i] - $mi;
                [$jr, $ji] = self::slopes($p, $natural, $damping, $w, $mr, $mi);
                $k = $weight[$i];
                for ($j = $q = 0; $j < $free; ++$j) {
                    $kr = $k * $jr[$j];
                    $ki = $k * $ji[$j];
                    $g[$j] += $kr * $er + $ki * $ei;
                    for ($l = 0; $l <= $j; ++$l, ++$q) {
                        $a[$q] += $kr * $jr[$l] + $ki * $ji[$l];
                    }
                }
            }
            $better = false;
            for ($try = 0; $try < 6; ++$try) {
                $step = self::step($a, $g, $damp);
                $q = $p;
                foreach ($step as $j => $d) {
                    $q[$j] += $d;
                }
                $q = self::bounded($q);
                [$newRe, $newIm] = self::along($q, $omega);
                $new = self::cost($newRe, $newIm, $re, $im, $weight);
                if ($new < $cost) {
                    $better = $cost - $new > 1e-9 * $cost;
                    [$p, $modelRe, $modelIm] = [$q, $newRe, $newIm];
                    $cost = $new;
                    $damp = max(1e-9, $damp / 4);
                    break;
                }
                $damp *= 5;
            }
            if (!$better) {
                break;
            }
        }

        return new self($p, $cost);
    }

    /**
     * Keeps the loop one that a craft could have: stable, causal, neither slower nor faster than flight.
     *
     * @param array<int, float> $p
     *
     * @return array<int, float>
     */
    private static function bounded(array $p): array
    {
        return [
            max(0.2, min(2.0, $p[0])),
            max(log(5.0), min(log(900.0), $p[1])),
            max(log(0.08), min(log(4.0), $p[2])),
            max(0.0, min(0.08, $p[3])),
            max(-0.02, min(0.05, $p[4])),
            max(0.0, min(0.05, $p[5])),
        ];
    }

    /**
     * @param list<float> $modelRe response of the loop
     * @param list<float> $modelIm
     * @param list<float> $re      response measured
     * @param list<float> $im
     * @param list<float> $weight
     */
    private static function cost(array $modelRe, array $modelIm, array $re, array $im, array $weight): float
    {
        $sum = 0.0;
        for ($i = 0, $n = \count($re); $i < $n; ++$i) {
            $er = $re[$i] - $modelRe[$i];
            $ei = $im[$i] - $modelIm[$i];
            $sum += $weight[$i] * ($er * $er + $ei * $ei);
        }

        return $sum;
    }

    /**
     * Solves (A + damp·diag A)·x = g; A is symmetric, its lower half given.
     *
     * @param array<int, float> $lower row after row
     * @param array<int, float> $g
     *
     * @return array<int, float>
     */
    private static function step(array $lower, array $g, float $damp): array
    {
        $a = [];
        for ($j = $q = 0, $n = \count($g); $j < $n; ++$j) {
            for ($l = 0; $l < $j; ++$l, ++$q) {
                $a[$j][$l] = $a[$l][$j] = $lower[$q];
            }
            $a[$j][$j] = $lower[$q] + $damp * $lower[$q] + 1e-12;
            ++$q;
        }

        return LinearSystem::solvePositive($a, $g);
    }
}
