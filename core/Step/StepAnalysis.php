<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Signal\CrossSpectra;
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
 * @phpstan-type Estimate array{StepCurve, LoopModel, float, list<float>, list<float>, float, list<float>}
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

    private const MOST_STRAYED = 1.0;

    /** Frequencies to either side that speak for one, and how much more than their noise they must lie apart to be believed. */
    private const ABOUT = 3;

    private const BEYOND = 4.0;

    /** Coherence about a frequency from which on the stick is heard there; independent windows that tell a mode. */
    private const HEARD = 0.5;

    private const TELL_A_MODE = 15.0;

    /** Squared size of a point over its variance, from which on it says whether the loop fits. */
    private const TELLS = 9.0;

    /** Squared size of an answer above the band that no longer changes the step. */
    private const SILENT = 1e-6;

    private const SHOWN_S = 0.5;

    /** The first look takes windows that lie half over one another only, where those are enough. */
    private const FIRST_APART = 2;

    private const FIRST_ENOUGH = 24;

    /** So much flight is enough to tell the blur, s. */
    private const BLUR_S = 24.0;

    /** No axis that flies answers later, s. */
    private const MOST_LATE_S = 0.3;

    private const RESAMPLES = 40;
    private const WINDOWS_PER_BLOCK = 6;

    /** A block shares three of its hops with its neighbours; and what remains, measured on loops whose step is known. */
    private const SHARED = 3;

    private const WIDENED = 1.3;

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
        [$windows, $blocks, $estimate, $lengthS, $late] = self::settled($runs, $fs, $byHand);
        [$curve, $model, $band, , $noise, $strayed, $apart] = $estimate;
        $blur = self::blur($runs, $fs, $lengthS, $late, $estimate);
        $curve = $curve->less($blur);

        return StepResult::of(
            $curve,
            array_map(static fn (StepCurve $c): StepCurve => $c->less($blur), self::resampled($blocks, $windows, $fs, $model, $apart)),
            $windows,
            $windows->seconds($fs),
            $band,
            self::bySize($windows, $fs, $model, null),
            $model,
            $noise,
            $strayed,
            self::WIDENED * sqrt(1 + self::SHARED / self::perBlock($windows)),
        );
    }

    /**
     * Windows as long as this loop needs, with the rate's as late as it answers: a first look tells both.
     *
     * @param list<array{list<float>, list<float>, float}> $runs
     * @param list<float>                                  $byHand
     *
     * @return array{StepWindows, list<Spectra>, Estimate, float, int} with the length of a window, s, and by how many samples the rate's is
     *                                                                 later
     *
     * @throws SignalError when no window can be used
     */
    private static function settled(array $runs, float $fs, array $byHand): array
    {
        $first = StepWindows::cut($runs, $fs, self::WINDOW_S, $byHand, apart: self::FIRST_APART);
        if (\count($first->used) < self::FIRST_ENOUGH) {
            $first = StepWindows::cut($runs, $fs, self::WINDOW_S, $byHand);
        }
        [, $estimate] = self::pooled($first, $fs);
        $settling = $estimate[0]->numbers()->settlingMs;
        // A loop that rings long needs windows long against its ringing.
        $lengthS = null === $settling || $settling > 250 ? self::LONG_WINDOW_S : self::WINDOW_S;
        $late = (int) round(max(0.0, min(self::MOST_LATE_S, $estimate[0]->centreS())) * $fs);
        $windows = StepWindows::cut($runs, $fs, $lengthS, $byHand, $late);
        [$blocks, $estimate] = self::pooled($windows, $fs);

        return [$windows, $blocks, $estimate, $lengthS, $late];
    }

    /**
     * A short flight is drawn from by shorter blocks, so that there are some.
     *
     * @return int<1, max>
     */
    private static function perBlock(StepWindows $windows): int
    {
        return max(2, min(self::WINDOWS_PER_BLOCK, intdiv(\count($windows->used), self::WINDOWS_PER_BLOCK)));
    }

    /**
     * What tapers, band and prior make of a loop whose step is known: the fitted one, flown with these very sticks. The measured
     * curve is off by about as much.
     *
     * @param list<array{list<float>, list<float>, float}> $runs
     * @param Estimate                                     $estimate
     *
     * @return list<float> how much too high the curve comes out
     *
     * @throws SignalError when no window can be used
     */
    private static function blur(array $runs, float $fs, float $lengthS, int $late, array $estimate): array
    {
        [$curve, $model, , , $noise, , $apart] = $estimate;
        $count = \count($curve->values);
        $left = (int) (self::BLUR_S * $fs);
        $flown = [];
        foreach ($runs as [$x, , $start]) {
            $x = \array_slice($x, 0, $left);
            $left -= \count($x);
            $flown[] = [$x, $model->answer($x, $fs), $start];
            if ($left <= 0) {
                break;
            }
        }
        $windows = StepWindows::cut($flown, $fs, $lengthS, [], $late);
        if ([] === $windows->used) {
            return array_fill(0, $count, 0.0);
        }
        $seen = self::estimate(self::sums($windows->used), $windows->size, $fs, $model, $noise, $apart)[0]->values;

        return array_map(static fn (float $is, float $should): float => $is - $should, $seen, $model->unitStep(1 / $fs, $count));
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
        $spectra = CrossSpectra::of(Fft::ofSize($n), $x, $y, HannWindow::ofSize($n)->weights, StepWindows::bins($n, $fs));
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
        [$windows, , $estimate] = self::settled($runs, $rateHz / $factor, []);

        return self::bySize($windows, $rateHz / $factor, $estimate[1], $limits);
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
        foreach (array_chunk($windows->used, self::perBlock($windows)) as $chunk) {
            $blocks[] = self::sums($chunk);
        }

        return [$blocks, self::estimate(self::added($blocks, array_keys($blocks)), $windows->size, $fs, null)];
    }

    /**
     * @param list<array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}> $blocks
     * @param list<float> $apart as the whole flight tells it: the prior is not drawn anew with the flight
     *
     * @return list<StepCurve> what other draws of the same flight would have shown
     */
    private static function resampled(array $blocks, StepWindows $windows, float $fs, LoopModel $model, array $apart): array
    {
        $curves = [];
        $count = \count($blocks);
        $dice = new Randomizer(new Xoshiro256StarStar(20_261_123));
        for ($r = 0; $count > 1 && $r < self::RESAMPLES; ++$r) {
            $pick = [];
            for ($i = 0; $i < $count; ++$i) {
                $pick[] = $dice->getInt(0, $count - 1);
            }
            $curves[] = self::estimate(self::added($blocks, $pick), $windows->size, $fs, $model, null, $apart)[0];
        }

        return $curves;
    }

    /**
     * @param array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float} $sum
     * @param int              $n     size of the transform
     * @param list<float>|null $known noise by bin of one window, where the spectra are of one alone; the loop is then taken as it is
     * @param list<float>|null $apart from the loop about each frequency, where it was told already
     *
     * The curve, the loop behind it, the top of the band the stick excites, Hz, how far each bin is believed, 0 to 1, and the
     * noise by bin of one window, how far the response strays from that loop, and how far, squared, about each frequency
     *
     * @return Estimate
     */
    private static function estimate(
        array $sum,
        int $n,
        float $fs,
        ?LoopModel $near,
        ?array $known = null,
        ?array $apart = null,
    ): array {
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
            $model = $near->refit($omega, $re, $im, $noise);
        }
        $strayed = self::strayed($omega, $re, $im, $noise, $model);
        $spread = max(self::PRIOR_SPREAD, $strayed);
        // A few windows follow at any frequency by chance, and their own noise looks small: they cannot tell a mode from noise.
        $apart ??= null === $known && $independent >= self::TELL_A_MODE
            ? self::apart($sum, $re, $im, $noise, $model, (2 * \M_PI * $fs) / $n)
            : array_fill(0, \count($omega), 0.0);
        [$fullRe, $fullIm, $believed] = self::blended($re, $im, $noise, $model, $n, $fs, $spread, $apart);

        return [StepCurve::fromResponse($fullRe, $fullIm, $fs, self::SHOWN_S), $model, $band, $believed, $floor, $strayed, $apart];
    }

    /**
     * Data where they tell, the loop where they do not.
     *
     * @param list<float> $re
     * @param list<float> $im
     * @param list<float> $noise  inverse variance of each point
     * @param int         $n      size of the transform
     * @param float       $spread of the truth about the loop, as a share of it
     * @param list<float> $apart  how far, squared, it lies from it about each frequency
     *
     * @return array{list<float>, list<float>, list<float>} response from 0 to half the rate, and how far each bin is believed
     */
    private static function blended(
        array $re,
        array $im,
        array $noise,
        LoopModel $model,
        int $n,
        float $fs,
        float $spread,
        array $apart,
    ): array {
        $bins = \count($re) + 1;
        $half = intdiv($n, 2);
        $fullRe = [1.0];
        $fullIm = [0.0];
        $believed = [];
        $silent = false;
        for ($k = 1; $k <= $half; ++$k) {
            $w = (2 * \M_PI * $k * $fs) / $n;
            // Above what is looked at the loop alone speaks, and soon says nothing.
            [$mr, $mi] = $k < $bins || !$silent ? $model->response($w) : [0.0, 0.0];
            $silent = $k >= $bins && $mr * $mr + $mi * $mi < self::SILENT;
            if ($k < $bins) {
                $prior = 1.0 / (max($spread ** 2 * ($mr * $mr + $mi * $mi), $apart[$k - 1]) + 1e-6);
                $trust = $noise[$k - 1] / ($noise[$k - 1] + $prior);
                $believed[] = $trust;
                $mr += $trust * ($re[$k - 1] - $mr);
                $mi += $trust * ($im[$k - 1] - $mi);
            }
            $fullRe[] = $mr;
            $fullIm[] = $mi;
        }
        $fullRe[0] = $fullRe[1];

        return [$fullRe, $fullIm, $believed];
    }

    /**
     * How far a response lies from a loop, as a share of its size, beyond what its noise explains: where data and prior disagree, the
     * data win.
     *
     * @param list<float> $omega
     * @param list<float> $re
     * @param list<float> $im
     * @param list<float> $inverse inverse variance of each point
     */
    private static function strayed(array $omega, array $re, array $im, array $inverse, LoopModel $model): float
    {
        $off = $size = 0.0;
        [$modelRe, $modelIm] = $model->responses($omega);
        foreach ($modelRe as $i => $mr) {
            $mi = $modelIm[$i];
            $square = $mr * $mr + $mi * $mi;
            // Only where a point tells more than a third of its own size.
            if ($inverse[$i] * $square < self::TELLS) {
                continue;
            }
            $off += max(0.0, ($re[$i] - $mr) ** 2 + ($im[$i] - $mi) ** 2 - 2 / $inverse[$i]);
            $size += $square;
        }

        return $size > 0 ? min(self::MOST_STRAYED, sqrt($off / $size)) : 0.0;
    }

    /**
     * How far, squared, a response lies from a loop about each frequency, beyond what its noise explains, where the stick is heard: a mode
     * that no plain loop has is there although the rest fits.
     *
     * @param Spectra     $sum
     * @param list<float> $re
     * @param list<float> $im
     * @param list<float> $inverse inverse variance of each point
     * @param float       $step    rad/s from one to the next
     *
     * @return list<float>
     */
    private static function apart(array $sum, array $re, array $im, array $inverse, LoopModel $model, float $step): array
    {
        $n = \count($re);
        $off = $noise = $both = $alone = [0.0];
        foreach ($re as $i => $r) {
            [$mr, $mi] = $model->response($step * ($i + 1));
            $off[] = $off[$i] + ($r - $mr) ** 2 + ($im[$i] - $mi) ** 2;
            $noise[] = $noise[$i] + 1 / $inverse[$i];
            $both[] = $both[$i] + ($sum['cr'][$i + 1] ** 2 + $sum['ci'][$i + 1] ** 2) / max(1e-12, $sum['xx'][$i + 1]);
            $alone[] = $alone[$i] + $sum['yy'][$i + 1];
        }
        $apart = [];
        for ($i = 0; $i < $n; ++$i) {
            [$from, $to] = [max(0, $i - self::ABOUT), min($n, $i + self::ABOUT + 1)];
            $beyond = $off[$to] - $off[$from];
            $by = $noise[$to] - $noise[$from];
            $heard = $both[$to] - $both[$from] > self::HEARD * ($alone[$to] - $alone[$from]);
            $apart[] = $heard && $beyond > self::BEYOND * $by ? ($beyond - $by) / ($to - $from) : 0.0;
        }

        return $apart;
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
            ['xx' => $wxx, 'yy' => $wyy, 'cr' => $wcr, 'ci' => $wci, 'weight' => $g] = $w;
            for ($k = 0; $k < $n; ++$k) {
                $xx[$k] += $g * $wxx[$k];
                $yy[$k] += $g * $wyy[$k];
                $cr[$k] += $g * $wcr[$k];
                $ci[$k] += $g * $wci[$k];
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
