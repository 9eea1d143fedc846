<?php

declare(strict_types=1);

namespace Ortholex\App\Tune;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;

/** What sheet 62 shows. */
final readonly class FiltersView
{
    /**
     * @param array<string, list<Setting>>                  $groups heading => settings
     * @param array<string, array{low: float, high: float}> $ranges
     * @param list<Log>                                     $logs
     */
    public function __construct(
        public array $groups,
        public SettingSet $now,
        public SettingSet $staged,
        public array $ranges,
        public ?Log $log,
        public array $logs,
        public string $answer,
    ) {
    }
}
