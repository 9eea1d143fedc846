<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters\Cutoff;

use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Signal\CrossSpectra;
use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Signal\Spectrum;

/**
 * Where the low-pass of D may stand: above the band in which the craft follows the stick, the highest cutoff that leaves noise less than
 * its share of D.
 */
final readonly class DCutoffs
{
    /** Of D's power, noise may be so much. */
    public const TARGET_SHARE = 0.1;

    /** Coherence of setpoint and rate from which a frequency is one that the stick uses. */
    private const COHERENT = 0.5;

    private const WINDOW_S = 1.0;
    private const CUTOFFS_HZ = [20, 25, 30, 35, 40, 50, 60, 70, 80, 90, 100, 115, 130, 150, 175, 200, 240, 300];

    /**
     * @param float         $bandHz up to where the craft follows the stick
     * @param list<DCutoff> $table  by rising cutoff
     * @param int|null      $pick   which of them; null where even the lowest leaves too much
     */
    private function __construct(public float $bandHz, public array $table, public ?int $pick)
    {
    }

    /**
     * Up to which frequency rotation follows the stick: coherence of at least a half from the lowest on.
     *
     * @param list<list<float>> $setpoint gap-free, deg/s
     * @param list<list<float>> $rate     of the same runs
     *
     * @return float|null Hz; null where it hardly follows anywhere
     */
    public static function band(array $setpoint, array $rate, float $rateHz): ?float
    {
        $n = 2 ** max(6, (int) round(log(self::WINDOW_S * $rateHz, 2)));
        $fft = Fft::ofSize($n);
        $taper = HannWindow::ofSize($n)->weights;
        $bins = min($n >> 1, (int) ceil((120 * $n) / $rateHz));
        $sum = ['xx' => array_fill(0, $bins + 1, 0.0), 'yy' => array_fill(0, $bins + 1, 0.0)];
        $sum += ['cr' => $sum['xx'], 'ci' => $sum['xx']];
        $windows = 0;
        foreach ($setpoint as $r => $run) {
            for ($at = 0; $at + $n <= \count($run); $at += $n >> 1, ++$windows) {
                $one = CrossSpectra::of($fft, \array_slice($run, $at, $n), \array_slice($rate[$r], $at, $n), $taper, $bins);
                foreach ($sum as $key => $values) {
                    for ($k = 0; $k <= $bins; ++$k) {
                        $sum[$key][$k] = $values[$k] + $one[$key][$k];
                    }
                }
            }
        }
        $last = null;
        for ($k = max(1, (int) round((1.0 * $n) / $rateHz)); $k <= $bins && $windows >= 4; ++$k) {
            $both = $sum['xx'][$k] * $sum['yy'][$k];
            // A stick that rests follows nothing, whatever the last digits of a transform say.
            $coherence = $sum['xx'][$k] > 1e-12 * $sum['yy'][$k] && $both > 0 ? ($sum['cr'][$k] ** 2 + $sum['ci'][$k] ** 2) / $both : 0.0;
            if ($coherence < self::COHERENT) {
                break;
            }
            $last = ($k * $rateHz) / $n;
        }

        return $last;
    }

    /**
     * @param Spectrum   $behind the rate behind the notches, (deg/s)²/Hz
     * @param SettingSet $chain  its rate path, and the kind of D's first stage (first order where it has none)
     * @param float      $d      gain, in the units of the catalogue
     */
    public static function of(Spectrum $behind, SettingSet $chain, float $d, float $bandHz, float $loopHz, float $logHz): self
    {
        $filters = RateFilters::of($chain->with(['notch.motor.orders' => '', 'd_path.stage.1.kind' => LowPass::Off->value]), $loopHz);
        $kind = LowPass::of($chain, 'd_path', 1);
        $rate = WhatIf::through($behind, $filters->ratePath);
        $power = [];
        foreach ($rate->density as $k => $v) {
            [$re, $im] = WhatIf::dGain($filters, $d, $k * $rate->stepHz);
            $power[] = $v * ($re * $re + $im * $im) * $rate->stepHz;
        }
        $table = [];
        $pick = null;
        foreach (self::CUTOFFS_HZ as $cutoff) {
            if ($cutoff < $bandHz || $cutoff >= RateFilters::highestHz($loopHz)) {
                continue;
            }
            $chainOfD = FilterChain::of(
                $loopHz,
                LowPass::SecondOrder === $kind ? FilterStage::secondOrder($cutoff, $loopHz) : FilterStage::firstOrder($cutoff, $loopHz),
            );
            $signal = $noise = 0.0;
            foreach ($power as $k => $v) {
                $hz = $k * $rate->stepHz;
                if ($hz <= $logHz / 2) {
                    [$re, $im] = $chainOfD->response(min($hz, $loopHz / 2));
                    $hz <= $bandHz ? $signal += $v * ($re * $re + $im * $im) : $noise += $v * ($re * $re + $im * $im);
                }
            }
            $share = $signal + $noise > 0 ? $noise / ($signal + $noise) : 0.0;
            $table[] = new DCutoff((float) $cutoff, sqrt($noise), $share, 1e3 * $chainOfD->phaseDelay(WhatIf::DELAY_AT_HZ));
            $pick = $share <= self::TARGET_SHARE ? \count($table) - 1 : $pick;
        }

        return new self($bandHz, $table, $pick);
    }
}
