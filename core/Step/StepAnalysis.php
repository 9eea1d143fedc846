<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Statistics;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * What an axis does to a unit step of the stick, from ordinary flight.
 *
 * Tapered windows are chosen by their input, pooled into H = (conj(X)·Y + λ·M)/(|X|² + λ). λ is the measured
 * noise over what the prior allows, and M a loop fitted where the stick does excite: plain regularisation pulls H
 * towards zero and so flattens the step; this pulls it towards a loop like the one measured. Cross-spectra as in
 * Bendat and Piersol, Random Data, ch. 6; the block bootstrap because overlapping windows are not independent.
 *
 * @phpstan-type Spectra array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}
 * @phpstan-type Estimate array{StepCurve, LoopModel, float, list<float>, list<float>}
 */
final readonly class StepAnalysis
{
    private const ANALYSIS_RATE_HZ = 1000.0;
    private const WINDOW_S = 2.0;
    private const LONG_WINDOW_S = 4.0;

    /** Share of the moved windows that must follow for any to be believed. */
    private const LEAST_FOLLOWING = 0.25;

    /** How far, relative to the fitted loop, the true response may stray from it before the data must speak. */
    private const PRIOR_SPREAD = 0.25;

    private const SHOWN_S = 0.5;
    private const RESAMPLES = 40;
    private const WINDOWS_PER_BLOCK = 4;

    /** Fewer windows of one size say nothing of it. */
    private const LEAST_OF_SIZE = 4;

    /**
     * @param list<list<float>> $setpoint gap-free runs, deg/s
     * @param list<list<float>> $rate     the same runs of the rotation, deg/s
     * @param list<float>       $starts   when each run begins, s; from zero on when empty
     * @param list<float>       $byHand   beginnings of windows that somebody struck out, s
     *
     * @throws SignalError when no window can be used; its message says why
     */
    public static function of(array $setpoint, array $rate, float $rateHz, array $starts = [], array $byHand = []): StepResult
    {
        $factor = self::factor($rateHz);
        $fs = $rateHz / $factor;
        $runs = [];
        foreach ($setpoint as $i => $x) {
            $runs[] = [Statistics::decimated($x, $factor), Statistics::decimated($rate[$i], $factor), $starts[$i] ?? 0.0];
        }
        $windows = StepWindows::cut($runs, $fs, self::WINDOW_S, $byHand);
        [$blocks, $estimate] = self::pooled($windows, $fs);
        $settling = $estimate[0]->numbers()->settlingMs;
        // A loop that rings long needs windows long against its ringing.
        if (null === $settling || $settling > 250) {
            $windows = StepWindows::cut($runs, $fs, self::LONG_WINDOW_S, $byHand);
            [$blocks, $estimate] = self::pooled($windows, $fs);
        }
        [$curve, $model, $band, , $noise] = $estimate;

        return StepResult::of(
            $curve,
            self::resampled($blocks, $windows, $fs, $model),
            $windows,
            $windows->seconds($fs),
            $band,
            self::bySize($windows, $fs, $model, null),
            $model,
            $noise,
        );
    }

    /**
     * What one window alone says, drawn towards the loop of the whole flight where the stick moved nothing in it.
     *
     * @param list<float> $setpoint of the window, at the log's rate, deg/s
     * @param list<float> $rate     of the same time
     * @param list<float> $noise    of the flight by bin, as StepResult has it: one window alone cannot tell noise from response
     * @param float       $bandHz   top of the band that the flight excites
     *
     * @throws SignalError when it is too short
     */
    public static function window(array $setpoint, array $rate, float $rateHz, LoopModel $loop, array $noise, float $bandHz): StepScope
    {
        $factor = self::factor($rateHz);
        $fs = $rateHz / $factor;
        $x = Statistics::decimated($setpoint, $factor);
        $y = Statistics::decimated($rate, $factor);
        $n = 2 ** (int) floor(log(max(1, \count($x)), 2));
        if ($n < 256) {
            throw NoStepResponse::windowTooShort(\count($x));
        }
        $x = \array_slice($x, 0, $n);
        $y = \array_slice($y, 0, $n);
        $spectra = StepWindows::spectra(Fft::ofSize($n), $x, $y, StepWindows::bins($n, $fs), HannWindow::ofSize($n)->weights);
        [$curve, , , $trust] = self::estimate($spectra + ['weight' => 1.0], $n, $fs, $loop, $noise);
        $most = max(1, min(\count($trust), (int) round(($bandHz * $n) / $fs)));

        return new StepScope($fs, $x, $y, $curve, array_sum(\array_slice($trust, 0, $most)) / $most);
    }

    /** Samples that are averaged into one, so that the rate is about that of the analysis. */
    private static function factor(float $rateHz): int
    {
        return max(1, (int) floor($rateHz / self::ANALYSIS_RATE_HZ));
    }

    /**
     * The step of small, medium and large moves.
     *
     * @param list<list<float>>         $setpoint gap-free runs, deg/s
     * @param list<list<float>>         $rate
     * @param array{float, float}|null $limits   deg/s up to which a move is small, and medium; thirds of the largest when null
     *
     * @return array<string, StepOfSize>
     *
     * @throws SignalError when no window can be used
     */
    public static function sizes(array $setpoint, array $rate, float $rateHz, ?array $limits): array
    {
        $factor = self::factor($rateHz);
        $runs = [];
        foreach ($setpoint as $i => $x) {
            $runs[] = [Statistics::decimated($x, $factor), Statistics::decimated($rate[$i], $factor), 0.0];
        }
        $windows = StepWindows::cut($runs, $rateHz / $factor, self::WINDOW_S);

        return self::bySize($windows, $rateHz / $factor, self::pooled($windows, $rateHz / $factor)[1][1], $limits);
    }

    /**
     * @param array{float, float}|null $limits
     *
     * @return array<string, StepOfSize>
     */
    private static function bySize(StepWindows $windows, float $fs, LoopModel $model, ?array $limits): array
    {
        $top = max([1.0, ...$windows->sizes]);
        [$small, $medium] = $limits ?? [$top / 3, (2 * $top) / 3];
        $groups = ['small' => [], 'medium' => [], 'large' => []];
        foreach ($windows->sizes as $i => $size) {
            $groups[$size < $small ? 'small' : ($size < $medium ? 'medium' : 'large')][] = $windows->used[$i];
        }
        $out = [];
        foreach ($groups as $name => $group) {
            $numbers =
                \count($group) < self::LEAST_OF_SIZE ? null : self::estimate(self::sums($group), $windows->size, $fs, $model)[0]->numbers();
            $out[$name] = new StepOfSize(
                \count($group),
                $numbers?->peak,
                $numbers?->delayMs,
                ['small' => $small, 'medium' => $medium, 'large' => $top][$name],
            );
        }

        return $out;
    }

    /**
     * Spectra summed by block, and the estimate from all of them.
     *
     * @return array{list<Spectra>, Estimate}
     *
     * @throws SignalError when no window can be used
     */
    private static function pooled(StepWindows $windows, float $fs): array
    {
        // Two signals that have nothing to do with each other still seem to follow in a window here and there.
        $astray = $windows->excluded[Exclusion::Astray->value] ?? 0;
        if (\count($windows->used) < self::LEAST_FOLLOWING * (\count($windows->used) + $astray) || [] === $windows->used) {
            throw NoStepResponse::nothingUsed($windows->excluded);
        }
        $blocks = [];
        foreach (array_chunk($windows->used, self::WINDOWS_PER_BLOCK) as $chunk) {
            $blocks[] = self::sums($chunk);
        }

        return [$blocks, self::estimate(self::added($blocks, array_keys($blocks)), $windows->size, $fs, null)];
    }

    /**
     * @param list<array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}> $blocks
     *
     * @return list<StepCurve> what other draws of the same flight would have shown
     */
    private static function resampled(array $blocks, StepWindows $windows, float $fs, LoopModel $model): array
    {
        $curves = [];
        $count = \count($blocks);
        $dice = new Randomizer(new Xoshiro256StarStar(20_261_123));
        for ($r = 0; $count > 1 && $r < self::RESAMPLES; ++$r) {
            $pick = [];
            for ($i = 0; $i < $count; ++$i) {
                $pick[] = $dice->getInt(0, $count - 1);
            }
            $curves[] = self::estimate(self::added($blocks, $pick), $windows->size, $fs, $model)[0];
        }

        return $curves;
    }

    /**
     * @param array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float} $sum
     * @param int              $n     size of the transform
     * @param list<float>|null $known noise by bin of one window, where the spectra are of one alone; the loop is then taken as it is
     *
     * The curve, the loop behind it, the top of the band the stick excites, Hz, how far each bin is believed, 0 to 1, and the
     * noise by bin of one window
     *
     * @return Estimate
     */
    private static function estimate(array $sum, int $n, float $fs, ?LoopModel $near, ?array $known = null): array
    {
        $bins = \count($sum['xx']);
        // Three quarters overlap of Hann windows leaves about half the windows independent (Welch 1967).
        $independent = max(1.0, $sum['weight'] * 0.52);
        $omega = $re = $im = $inverseVariance = $floor = [];
        $band = 0.0;
        for ($k = 1; $k < $bins; ++$k) {
            $xx = $sum['xx'][$k];
            if ($xx <= 0) {
                $xx = 1e-12;
            }
            $hr = $sum['cr'][$k] / $xx;
            $hi = $sum['ci'][$k] / $xx;
            $residual = max($sum['yy'][$k] - ($hr * $hr + $hi * $hi) * $xx, 1e-6 * $sum['yy'][$k] + 1e-9);
            $floor[] = $residual / max(1e-9, $sum['weight']);
            if (null !== $known) {
                $residual = ($known[$k - 1] ?? 0.0) * $sum['weight'] + 1e-9;
            }
            $omega[] = (2 * \M_PI * $k * $fs) / $n;
            $re[] = $hr;
            $im[] = $hi;
            $inverseVariance[] = ($independent * $xx) / $residual;
            if ($sum['cr'][$k] ** 2 + $sum['ci'][$k] ** 2 > 0.5 * $xx * $sum['yy'][$k]) {
                $band = ($k * $fs) / $n;
            }
        }
        $noise = self::smoothed($inverseVariance);
        if (null === $near) {
            $model = LoopModel::fit($omega, $re, $im, $noise);
        } elseif (null !== $known) {
            $model = $near;
        } else {
            // Every third point is plenty to follow a resample.
            $model = $near->refit(self::everyThird($omega), self::everyThird($re), self::everyThird($im), self::everyThird($noise));
        }
        $half = intdiv($n, 2);
        $fullRe = [1.0];
        $fullIm = [0.0];
        $believed = [];
        for ($k = 1; $k <= $half; ++$k) {
            $w = (2 * \M_PI * $k * $fs) / $n;
            [$mr, $mi] = $model->response($w);
            if ($k < $bins) {
                $prior = 1.0 / (self::PRIOR_SPREAD ** 2 * ($mr * $mr + $mi * $mi) + 1e-6);
                $trust = $noise[$k - 1] / ($noise[$k - 1] + $prior);
                $believed[] = $trust;
                $mr += $trust * ($re[$k - 1] - $mr);
                $mi += $trust * ($im[$k - 1] - $mi);
            }
            $fullRe[] = $mr;
            $fullIm[] = $mi;
        }
        $fullRe[0] = $fullRe[1];

        return [StepCurve::fromResponse($fullRe, $fullIm, $fs, self::SHOWN_S), $model, $band, $believed, $floor];
    }

    /**
     * All of the first 24, where the stick moves most, then every third.
     *
     * @param list<float> $values
     *
     * @return list<float>
     */
    private static function everyThird(array $values): array
    {
        return array_values(array_filter($values, static fn (int $i): bool => $i < 24 || 0 === $i % 3, \ARRAY_FILTER_USE_KEY));
    }

    /**
     * @param list<float> $values
     *
     * @return list<float> medians of five neighbours, so that one lucky bin is not believed more than its like
     */
    private static function smoothed(array $values): array
    {
        $out = [];
        $n = \count($values);
        for ($i = 0; $i < $n; ++$i) {
            $out[] = Statistics::median(\array_slice($values, max(0, $i - 2), min($n, $i + 3) - max(0, $i - 2)));
        }

        return $out;
    }

    /**
     * @param list<array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}> $windows
     *
     * @return array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}
     */
    private static function sums(array $windows): array
    {
        $n = \count($windows[0]['xx']);
        $xx = $yy = $cr = $ci = array_fill(0, $n, 0.0);
        $weight = 0.0;
        foreach ($windows as $w) {
            $g = $w['weight'];
            for ($k = 0; $k < $n; ++$k) {
                $xx[$k] += $g * $w['xx'][$k];
                $yy[$k] += $g * $w['yy'][$k];
                $cr[$k] += $g * $w['cr'][$k];
                $ci[$k] += $g * $w['ci'][$k];
            }
            $weight += $g;
        }

        return [
            'xx' => array_values($xx),
            'yy' => array_values($yy),
            'cr' => array_values($cr),
            'ci' => array_values($ci),
            'weight' => $weight,
        ];
    }

    /**
     * @param list<array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}> $blocks
     * @param list<int>                                                                                      $pick
     *
     * @return array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}
     */
    private static function added(array $blocks, array $pick): array
    {
        $chosen = [];
        foreach ($pick as $i) {
            $chosen[] = ['weight' => 1.0] + $blocks[$i];
        }
        $sum = self::sums($chosen);
        $sum['weight'] = 0.0;
        foreach ($pick as $i) {
            $sum['weight'] += $blocks[$i]['weight'];
        }

        return $sum;
    }
}
