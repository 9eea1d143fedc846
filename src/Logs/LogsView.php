<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Logs\Recorder\RecorderView;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\FlightPlan;

/** What sheet 51 shows. */
final readonly class LogsView
{
    /**
     * @param list<LogRow>   $rows   the newest, or all
     * @param int            $all    logs there are
     * @param list<Log>      $away   put away, with a way back
     * @param list<CardView> $cards
     * @param SettingSet     $change what the plan would set otherwise, and is not staged yet
     * @param SettingSet     $now    settings on the craft
     * @param RecorderView|null $recorder null while it cannot be asked
     */
    public function __construct(
        public array $rows,
        public int $all,
        public array $cards,
        public bool $canFly,
        public string $whyNot,
        public int $mostUploadMb,
        public array $away,
        public FlightPlan $plan,
        public SettingSet $change,
        public SettingSet $now,
        public ?RecorderView $recorder,
    ) {
    }
}
