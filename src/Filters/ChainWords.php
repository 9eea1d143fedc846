<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;

/** A chain of the rate path in few words. */
final readonly class ChainWords
{
    /** @return array{string, string, string} motor notches, tracking notches, low-passes */
    public static function of(SettingSet $chain): array
    {
        $orders = RateFilters::orders($chain);
        $peaks = $chain->whole('notch.tracking.peaks');
        $stages = [];
        foreach (RateFilters::STAGES as $n) {
            $hz = $chain->number("rate_path.stage.$n.cutoff_hz");
            $stages[] = match (LowPass::of($chain, 'rate_path', $n)) {
                LowPass::Off => '',
                LowPass::FirstOrder => \sprintf('%.0f Hz first order', $hz),
                LowPass::SecondOrder => \sprintf('%.0f Hz second order', $hz),
            };
        }

        return [
            [] === $orders ? 'off' : implode(', ', $orders).' × '.\sprintf('%.0f %%', $chain->number('notch.motor.width_pct')),
            0 === $peaks ? 'off' : "$peaks peaks",
            implode(', ', array_filter($stages)) ?: 'off',
        ];
    }

    public static function inShort(SettingSet $chain): string
    {
        [$motor, $tracking, $low] = self::of($chain);

        return implode('; ', array_filter([
            'off' === $motor ? '' : "motor notches $motor",
            'off' === $tracking ? '' : "tracking $tracking",
            'off' === $low ? '' : $low,
        ])) ?: 'no filters';
    }
}
