<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\Grade;

/** Reports and charts as the store gives them back, with just what a test needs in them. */
final class Kept
{
    /**
     * @param array<string, float>                $motion   RMS of the setpoint by axis, deg/s
     * @param array<string, array<string, mixed>> $steps    by axis, as step() and untold() give them
     * @param list<Finding>                       $findings
     * @param array<string, float>                $measured RMS of the measured rate by axis, deg/s
     */
    public static function report(array $motion = [], array $steps = [], array $findings = [], array $measured = []): Report
    {
        return Report::fromArray(
            Stored::of([
                'log' => [
                    'duration_s' => 30.0,
                    'sample_rate_hz' => 1000.0,
                    'samples' => 30000,
                    'gaps' => [],
                    'time_faults' => 0,
                    'bad_rows' => ['count' => 0, 'places' => []],
                    'traces' => [],
                    'columns_left_out' => [],
                ],
                'step' => $steps,
                'measured' => array_map(static fn (float $rms): array => ['rms_dps' => $rms, 'peaks' => []], $measured),
                'filtered' => [],
                'lag' => [],
                'ridges' => [],
                'orders' => [],
                'residual_dps' => [],
                'verdicts' => [],
                'incidents' => [],
                'signs' => [],
                'adequacy' => [
                    'throttle_share' => [],
                    'motion_dps' => $motion + ['roll' => 0.0, 'pitch' => 0.0, 'yaw' => 0.0],
                    'duration_s' => 30.0,
                    'can' => [],
                    'cannot' => [],
                ],
                'findings' => array_map(static fn (Finding $f): array => $f->toArray(), $findings),
            ]),
        );
    }

    /** @param array<string, array<string, mixed>> $spectra by axis */
    public static function charts(array $spectra = []): Charts
    {
        return Charts::fromArray(
            Stored::of([
                'spectrum' => $spectra,
                'step' => [],
                'plant' => [],
                'rotor_hz' => [],
                'map' => [],
                'rpm_map' => [],
                'full_rpm' => null,
                'notches' => [],
            ]),
        );
    }

    /**
     * @param list<Fact>                         $reasons
     * @param array<string, array{float, float}> $intervals
     *
     * @return array<string, mixed>
     */
    public static function step(float $peak, float $delayMs, Grade $grade, array $reasons = [], array $intervals = []): array
    {
        return [
            'numbers' => [
                'delay_ms' => $delayMs,
                'rise_ms' => $delayMs,
                'peak' => $peak,
                'peak_ms' => 2 * $delayMs,
                'settling_ms' => null,
                'steady' => 1.0,
                'error_ms' => $delayMs,
            ],
            'intervals' => $intervals,
            'used' => 30,
            'excluded' => [],
            'by_size' => [],
            'linear' => null,
            'band_hz' => 60.0,
            'confidence' => self::confidence($grade, $reasons),
        ];
    }

    /** @return array<string, mixed> of an axis whose setpoint was not logged */
    public static function untold(Axis $axis): array
    {
        return [
            'numbers' => null,
            'intervals' => [],
            'used' => 0,
            'excluded' => [],
            'by_size' => [],
            'linear' => null,
            'band_hz' => null,
            'confidence' => self::confidence(Grade::None, [Fact::of(ConfidenceReason::NoSetpoint, axis: $axis)]),
        ];
    }

    /**
     * @param list<Fact> $reasons
     *
     * @return array<string, mixed>
     */
    private static function confidence(Grade $grade, array $reasons): array
    {
        return [
            'grade' => $grade->value,
            'reasons' => array_map(static fn (Fact $f): array => $f->toArray(), $reasons),
            'fly_instead' => null,
        ];
    }
}
