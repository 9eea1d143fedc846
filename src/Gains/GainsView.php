<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

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
        public ?GainFindings $findings,
    ) {
    }

    /** Whether an axis is drawn when the sheet opens: those that overshoot, else roll. */
    public function draws(string $axis): bool
    {
        $over = $this->findings->overshooting ?? [];

        return [] === $over ? 'roll' === $axis : \in_array($axis, $over, true);
    }

    public function answer(): string
    {
        return match (true) {
            [] === $this->rows => 'Link the craft once, so that its gains are known.',
            null === $this->findings => 'These are the gains; no log yet shows what they do.',
            default => $this->findings->answer,
        };
    }
}
