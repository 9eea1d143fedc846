<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Front;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Report\SheetsOfFindings;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\SinceGood;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\Weight;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Report\Strain;
use Ortholex\Core\Settings\Setting;

/** What the front of a log shows. */
final readonly class LogFrontView
{
    /** What gets replaced on a craft. */
    public const PARTS = Log::PARTS;

    /**
     * @param list<string> $places of the craft's motors, in words
     * @param list<string> $changed names of settings that are otherwise on the craft today
     * @param bool         $matchable whether the file that it came from is still here
     * @param Strain|null  $strain    null where the log is not whole
     */
    public function __construct(
        public Log $log,
        public Report $report,
        public array $places,
        public array $changed,
        private SheetsOfFindings $sheets,
        public ?SinceGood $since,
        public bool $matchable,
        public ?Strain $strain,
    ) {
    }

    /** @return list<string> columns of its file that are none of ours */
    public function leftOut(): array
    {
        return $this->log->leftOut;
    }

    /**
     * @return list<string>
     */
    public static function changed(SettingSet $flown, SettingSet $now): array
    {
        return array_values(
            array_filter(
                $flown->names(),
                static fn (string $name): bool => isset($now[$name]) && !Setting::same($flown[$name], $now[$name]),
            ),
        );
    }

    /** @return array<string, list<string>> traces that were turned about, by axis */
    public function turned(): array
    {
        $turned = [];
        foreach ($this->log->turned as $trace) {
            if (1 === preg_match('~_(roll|pitch|yaw)(_dps)?$~', $trace, $m)) {
                $turned[$m[1]][] = $trace;
            }
        }

        return $turned;
    }

    /** @return list<array{x: int, y: float, height: float}> columns of the drawing of throttle shares, 300 by 90 */
    public function throttleColumns(): array
    {
        $columns = [];
        foreach ($this->report->adequacy->throttleShare as $i => $share) {
            $height = round(62 * min(1.0, 2.5 * $share), 1);
            $columns[] = ['x' => 12 + 28 * $i, 'y' => 70 - $height, 'height' => $height];
        }

        return $columns;
    }

    /**
     * What stands in the address of a finding's evidence.
     *
     * @return array<string, float|int|string|null>
     */
    public function evidence(Finding $finding): array
    {
        return [
            'log' => $this->log->id,
            'axis' => $finding->axis?->value,
            'from' => $finding->passage[0] ?? null,
            'to' => $finding->passage[1] ?? null,
        ];
    }

    /** How many findings are grave. */
    public function wrong(): int
    {
        return \count(array_filter($this->report->findings, static fn (Finding $f): bool => Weight::Wrong === $f->weight));
    }

    /** The sheet that draws what a finding rests on. */
    public function sheetOf(Finding $finding): string
    {
        return $this->sheets->showing($finding);
    }
}
