<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Core\Tuning\GainSet;

/**
 * A log's measured rate, run through a chain of filters that it need not have been flown with.
 *
 * What moves (notches) is run sample by sample along the log; what stands (low-passes) multiplies the spectrum of the outcome by |H|² at
 * the loop's own rate, which is exact where the log has fewer samples than the loop (Oppenheim and Schafer, Discrete-Time Signal
 * Processing, 2.9: S_yy = |H|²·S_xx).
 */
final readonly class WhatIf
{
    public const DELAY_AT_HZ = 30.0;

    /** From here up, what reaches the motors only warms them. */
    public const MOTORS_FROM_HZ = 80.0;

    /**
     * @param array<string, WhatIfAxis> $axes   by axis; those whose measured rate was logged
     * @param list<Fact>                $doubts
     */
    private function __construct(public array $axes, public array $doubts)
    {
    }

    /**
     * @param SettingSet      $chain filters, and gains where noise behind them is wanted; what it leaves out is off
     * @param ClosedLoop|null $loop  how the craft would fly otherwise; where it is not known, it shakes as it did
     */
    public static function of(FlightLog $log, SettingSet $chain, ?ClosedLoop $loop = null): self
    {
        return self::behind(BehindNotches::of($log, $chain), $chain, $loop);
    }

    /**
     * @param BehindNotches $notched by the same notches as the chain has
     */
    public static function behind(BehindNotches $notched, SettingSet $chain, ?ClosedLoop $loop = null): self
    {
        $fixed = RateFilters::of($chain->with(['notch.motor.orders' => '']), $notched->loopHz);
        $late = $fixed->ratePath->phaseDelay(self::DELAY_AT_HZ);
        $axes = [];
        foreach ($notched->axes as $axis => $one) {
            $filtered = self::through(self::asItWouldFly($one['left'], $loop?->ratio(Axis::from($axis), $chain)), $fixed->ratePath);
            $axes[$axis] = new WhatIfAxis(
                $one['measured'],
                $filtered,
                $one['measured_dps'],
                sqrt($filtered->power(AxisSpectrum::RESIDUAL_FROM_HZ, $notched->logHz / 2)),
                1e3 * ($late + $one['delay_s']),
                1e3 * ($late + $one['delay_s'] + $fixed->dPath->phaseDelay(self::DELAY_AT_HZ)),
                self::noise($filtered, $fixed, $chain, Axis::from($axis), $notched->logHz),
            );
        }

        return new self($axes, self::doubts($notched->doubts, array_keys($axes), $loop));
    }

    /**
     * Where the loop is known on every axis it is reckoned with.
     *
     * @param list<Fact>   $doubts
     * @param list<string> $axes
     *
     * @return list<Fact>
     */
    private static function doubts(array $doubts, array $axes, ?ClosedLoop $loop): array
    {
        $unknown = array_filter($axes, static fn (string $axis): bool => null === $loop || !$loop->knows(Axis::from($axis)));

        return [] !== $axes && [] === $unknown
            ? array_values(array_filter($doubts, static fn (Fact $f): bool => WhatIfDoubt::OpenLoop !== $f->code))
            : $doubts;
    }

    /** @param \Closure(float): float|null $ratio of power */
    private static function asItWouldFly(Spectrum $left, ?\Closure $ratio): Spectrum
    {
        if (null === $ratio) {
            return $left;
        }
        $density = [];
        foreach ($left->density as $k => $v) {
            $density[] = $v * $ratio($k * $left->stepHz);
        }

        return Spectrum::of($left->stepHz, $density, $left->segments);
    }

    /** The rate at which the loop ran: the chain's word, the log's, or the log's own rate where both are silent and it is higher. */
    public static function loopHz(FlightLog $log, SettingSet $chain): float
    {
        $said = $chain->number('motors.loop_rate_hz', (float) ($log->setting('motors.loop_rate_hz') ?? 0));

        return max($log->clock->rateHz, $said > 0 ? $said : SettingSet::none()->loopHz());
    }

    /** @return list<list<list<float>>> rotor speeds by motor and then run, Hz; empty where they were not logged */
    public static function rotors(FlightLog $log): array
    {
        $rotors = [];
        foreach ($log->places() as $place) {
            if ($log->has("rpm_$place")) {
                $rotors[] = array_map(self::inHz(...), $log->runs("rpm_$place"));
            }
        }

        return $rotors;
    }

    /**
     * @param list<float> $rpm
     *
     * @return list<float>
     */
    public static function inHz(array $rpm): array
    {
        return array_map(static fn (float $one): float => abs($one) / 60, $rpm);
    }

    public static function through(Spectrum $spectrum, FilterChain $chain): Spectrum
    {
        $density = [];
        foreach ($spectrum->density as $k => $v) {
            [$re, $im] = $chain->response(min($k * $spectrum->stepHz, $chain->rateHz / 2));
            $density[] = $v * ($re * $re + $im * $im);
        }

        return Spectrum::of($spectrum->stepHz, $density, $spectrum->segments);
    }

    /**
     * Gain of D behind its own filters, % of output per deg/s: kd·fs·(1 − z⁻¹)·Fd, as the board differentiates.
     *
     * @return array{float, float} real and imaginary part
     */
    public static function dGain(RateFilters $filters, float $dSetting, float $hz): array
    {
        $loopHz = $filters->dPath->rateHz;
        $kd = ($dSetting / 1000) * $loopHz;
        $w = (2 * \M_PI * $hz) / $loopHz;
        [$fr, $fi] = $filters->dPath->response($hz);
        [$re, $im] = [$kd * (1 - cos($w)), $kd * sin($w)];

        return [$re * $fr - $im * $fi, $re * $fi + $im * $fr];
    }

    private static function noise(Spectrum $filtered, RateFilters $fixed, SettingSet $chain, Axis $axis, float $logHz): ?LoopNoise
    {
        if (!$chain->has("gain.{$axis->value}.p")) {
            return null;
        }
        $gains = GainSet::ofAxis($chain, $axis);
        $d = $motors = 0.0;
        foreach ($filtered->density as $k => $v) {
            $hz = $k * $filtered->stepHz;
            if ($hz < AxisSpectrum::RESIDUAL_FROM_HZ || $hz > $logHz / 2) {
                continue;
            }
            [$dr, $di] = self::dGain($fixed, $gains->d, $hz);
            $d += $v * ($dr * $dr + $di * $di);
            $motors += $hz < self::MOTORS_FROM_HZ ? 0.0 : $v * (($gains->p / 100 + $dr) ** 2 + $di * $di);
        }

        return new LoopNoise(sqrt($d * $filtered->stepHz), sqrt($motors * $filtered->stepHz));
    }
}
