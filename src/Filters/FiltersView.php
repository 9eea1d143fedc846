<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\Filters\Drawn\FilterThings;
use Ortholex\App\Filters\Drawn\Worth;
use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Craft\SettingSet;

/** What sheet 62 shows. */
final readonly class FiltersView
{
    /**
     * @param array<string, array{low: float, high: float}> $ranges by setting
     * @param list<Log>                                     $logs
     * @param BesideLog|null                                $beside held against it
     * @param list<string>                                  $doubts what the log cannot tell
     * @param array<string, LoopChange>                     $loops  by axis
     * @param CurveView|null                                $curve  where it was asked for
     * @param array<string, Worth>                          $worths what each filter takes out and costs, by its id
     */
    public function __construct(
        public FilterThings $things,
        public SettingSet $now,
        public SettingSet $staged,
        public array $ranges,
        public ?Log $log,
        public array $logs,
        public ?FilterFigures $figures,
        public ?BesideLog $beside,
        public array $doubts,
        public array $loops,
        public ?DPick $dPick,
        public ?CurveView $curve,
        public string $chosen,
        public array $worths,
    ) {
    }

    public function answer(): string
    {
        return $this->figures?->answer() ?? 'Link the craft once, so that its filters are known.';
    }
}
