<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\Book\Craft;
use Ortholex\App\Report\Chains;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Tray\TrayEffect;
use Ortholex\App\Settings\Tray\TrayEffects;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;

/** What staged settings would make of the delay of the filter chains. */
#[AsTaggedItem(priority: 30)]
final readonly class FiltersInBook implements TrayEffects
{
    public const DELAY_AT_HZ = 30.0;

    public function __construct(
        private CurrentNames $names,
        private Chains $chains,
        private JudgedLog $judged,
        private WhatIfs $whatIfs,
    ) {
    }

    public function effects(Craft $craft, SettingSet $after): iterable
    {
        $log = $this->judged->of($craft);
        // The same figures as on the sheet.
        $delays = fn (SettingSet $set): array => null !== $log && [] !== ($with = $this->whatIfs->of($craft, $log, $set))->axes
            ? WhatIfs::delaysMs($with)
            : self::delaysMs($this->chains->filters($this->names->of($craft, $set), $this->chains->rotorHz($craft, $log)));
        [$from, $to] = [$delays($craft->settings), $delays($after)];
        yield new TrayEffect('delay of the rate path at 30 Hz', 'ms', $from[0], $to[0], 2);
        yield new TrayEffect('delay of the D path at 30 Hz', 'ms', $from[1], $to[1], 2);
    }

    /** @return array{float, float} of the rate path, and of the D path behind it; ms at 30 Hz */
    public static function delaysMs(RateFilters $filters): array
    {
        $rate = $filters->ratePath->phaseDelay(self::DELAY_AT_HZ);

        return [1e3 * $rate, 1e3 * ($rate + $filters->dPath->phaseDelay(self::DELAY_AT_HZ))];
    }
}
