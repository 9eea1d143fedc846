<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;

/**
 * The feel for flights that gather logs in line of sight: strong around the centre, slow at the end so that big moves stay safe, with
 * feed-forward and stick-dependent D off so that only P and D speak.
 */
final readonly class TestFeel
{
    /** Quarter, half and full stick, deg/s: at full stick once round in just over a second, and a tenth of the stick turns by 44. */
    private const RATES = ['roll' => [110, 205, 330], 'pitch' => [110, 205, 330], 'yaw' => [60, 115, 200]];

    /**
     * @return SettingSet those of the craft that it sets
     */
    public static function settings(SettingSet $known): SettingSet
    {
        $feel = [];
        foreach (Axis::cases() as $axis) {
            [$quarter, $half, $full] = self::RATES[$axis->value];
            $feel += [
                "feel.$axis->value.quarter_dps" => (float) $quarter,
                "feel.$axis->value.half_dps" => (float) $half,
                "feel.$axis->value.full_dps" => (float) $full,
                "gain.$axis->value.ff" => 0.0,
                "gain.$axis->value.added_d" => 0.0,
            ];
        }

        return SettingSet::of($feel)->among($known);
    }
}
