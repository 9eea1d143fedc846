<?php

declare(strict_types=1);

namespace Ortholex\App\Tune;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;

/** What sheet 61 shows. */
final readonly class GainsView
{
    /**
     * @param array<string, array<string, Setting>>           $rows   axis => term => setting
     * @param list<Setting>                                   $others gains that belong to no axis
     * @param array<string, array{low: float, high: float}>   $ranges
     * @param list<Log>                                       $logs
     */
    public function __construct(
        public array $rows,
        public SettingSet $now,
        public SettingSet $staged,
        public array $others,
        public array $ranges,
        public ?Log $log,
        public array $logs,
    ) {
    }
}
