<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;

/**
 * The settings that an experienced hand begins with: what the parts say, and gains by what a full output turns this craft with.
 *
 * A gain is output over rate, so the same loop asks for gains in inverse proportion to the craft's authority, deg/s² at full difference;
 * the firmware's own defaults suit a craft of the authority that is given here.
 */
final readonly class StartSettings
{
    /** deg/s² about roll, pitch and yaw of the craft that the defaults suit. */
    private const SUITS = ['roll' => 78_000.0, 'pitch' => 69_000.0, 'yaw' => 8_500.0];

    /** Begun lower than might fly: a tune rises from there. */
    private const CAUTION = 0.75;

    /** Torque of a prop about its shaft over its thrust, m: of its diameter. */
    private const YAW_ARM = 0.125;

    private const LOWEST = 0.1;
    private const HIGHEST = 2.8;

    /** What the parts of the wiring are told is added by who solders it: see Soldering. */
    private function __construct()
    {
    }

    /** @return array<string, float|int|bool|string> what differs from the defaults */
    public static function of(CraftPlan $plan, CraftFigures $figures): array
    {
        $settings = [
            'frame.layout' => $plan->frame->layout->value,
            'frame.diagonal_mm' => round($plan->frame->diagonalMm),
            'props.diameter_mm' => (int) round($plan->prop->diameterMm),
            'pack.cells' => $plan->pack->cells,
            'motors.rotor_magnets' => $plan->motor->magnets,
            'motors.rpm_feedback' => true,
            'motors.loop_rate_hz' => '2000',
            'action.arm.on_in' => '5:1750-',
            'action.beeper.on_in' => '5:1250-1750',
            'action.angle.on_in' => '6:-1250',
            'action.horizon.on_in' => '6:1250-1750',
            'recorder.rate_hz' => '1000',
        ];
        foreach ($plan->frame->airframe()->motors as $i => $motor) {
            $settings['pad.'.($i + 1).'.drives'] = $motor->place;
        }
        $defaults = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT));
        foreach (self::authority($plan, $figures) as $axis => $is) {
            $k = max(self::LOWEST, min(self::HIGHEST, (self::CAUTION * self::SUITS[$axis]) / $is));
            foreach (['p' => 0.5, 'i' => 1.0, 'd' => 0.1] as $term => $step) {
                $settings["gain.$axis.$term"] = round(round(($defaults->number("gain.$axis.$term") * $k) / $step) * $step, 1);
            }
        }

        return $settings;
    }

    /** @return array{roll: float, pitch: float, yaw: float} deg/s² with half of the motors at full and half at rest */
    public static function authority(CraftPlan $plan, CraftFigures $figures): array
    {
        $about = [0.0, 0.0];
        $motors = $plan->frame->airframe()->motors;
        foreach ($motors as $m) {
            $about[0] += abs($m->y) * $figures->thrustN / 2;
            $about[1] += abs($m->x) * $figures->thrustN / 2;
        }
        $yaw = (\count($motors) / 2) * self::YAW_ARM * ($plan->prop->diameterMm / 1000) * $figures->thrustN;

        return [
            'roll' => rad2deg($about[0] / $figures->inertia[0]),
            'pitch' => rad2deg($about[1] / $figures->inertia[1]),
            'yaw' => rad2deg($yaw / $figures->inertia[2]),
        ];
    }
}
