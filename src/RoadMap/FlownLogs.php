<?php

declare(strict_types=1);

namespace Ortholex\App\RoadMap;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\Core\Incident\Saying\Kind;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\LogCheck\FlightPlan;
use Ortholex\Core\LogCheck\FlownLog;
use Ortholex\Core\LogCheck\Hindrance;
use Ortholex\Core\LogCheck\SinceGood;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Tuning\TermState;

/** What a craft's logs tell, one after the other. */
final readonly class FlownLogs
{
    /** Logs that a plan looks back over. */
    private const LOOKED_BACK = 12;

    public function __construct(private LogBook $book, private AnalysisStore $analyses)
    {
    }

    /** Which card to fly next, by what the newest logs can be used for. */
    public function plan(Craft $craft): FlightPlan
    {
        return FlightPlan::of($craft->settings, $this->flown($this->book->of($craft)));
    }

    /** What was changed between the last flight that went well and this one, whose loop does not. */
    public function since(Log $log): ?SinceGood
    {
        $before = array_filter($this->book->of($log->craft), static fn (Log $one): bool => $one->flownAt < $log->flownAt);
        $flown = $this->flown([$log, ...array_values($before)]);

        return [] === $flown ? null : SinceGood::of($flown[0], \array_slice($flown, 1));
    }

    /**
     * @param list<Log> $logs newest first
     *
     * @return list<FlownLog> those that were analysed
     */
    private function flown(array $logs): array
    {
        $flown = [];
        foreach (\array_slice($logs, 0, self::LOOKED_BACK) as $log) {
            if ($this->analyses->has($log)) {
                $report = $this->analyses->report($log);
                $card = $log->settings['flight.card'] ?? null;
                $flown[] = new FlownLog(
                    $log->settings,
                    $report->adequacy,
                    self::hindrance($report),
                    \is_string($card) ? Card::tryFrom($card) : null,
                    $log->code,
                );
            }
        }

        return $flown;
    }

    private static function hindrance(Report $report): ?Hindrance
    {
        foreach ($report->incidents as $incident) {
            if ($incident->kind->isOfMotor() || Kind::Hit === $incident->kind) {
                return Hindrance::Broken;
            }
        }
        foreach ($report->verdicts as $verdict) {
            if (TermState::Oscillation === $verdict->verdict || TermState::Noise === $verdict->verdict) {
                return Hindrance::Unstable;
            }
        }

        return null;
    }
}
