<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogRow;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\FlightPlan;

/** What sheet 51 shows. */
final readonly class LogsView
{
    /**
     * @param list<LogRow>                                                                          $rows
     * @param list<Log>                                                                             $away put away, with a way back
     * @param list<array{id: string, name: string, for: string, sticks: array<string, list<float>>}> $cards with a few points of each stick
     * @param SettingSet $now   settings on the craft, for what the plan changes
     */
    public function __construct(
        public array $rows,
        public array $cards,
        public bool $canFly,
        public string $whyNot,
        public int $mostUploadMb,
        public array $away,
        public FlightPlan $plan,
        public SettingSet $now,
    ) {
    }
}
