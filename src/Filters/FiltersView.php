<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

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
        public ?FilterFigures $figures,
    ) {
    }

    public function answer(): string
    {
        return $this->figures?->answer() ?? 'Link the craft once, so that its filters are known.';
    }
}
