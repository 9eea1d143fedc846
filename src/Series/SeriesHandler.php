<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Link\Benches;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Settings\Commit;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\World\PackAlarm;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/**
 * A whole series on the bench: commit a step, fly it, look at it, next; and at the end, however it comes, what stood before is back.
 * It stops by itself where the loop swings, a motor fails, or the pack is low.
 */
final readonly class SeriesHandler implements JobHandler
{
    private const SECONDS = 30;

    /** @param iterable<JobHandler> $handlers of which one flies */
    public function __construct(
        #[TaggedIterator(JobHandler::class)] private iterable $handlers,
        private SeriesBook $book,
        private LogBook $logs,
        private AnalysisStore $analyses,
        private Staging $staging,
        private Commit $commit,
        private EntityManagerInterface $entities,
        private Benches $benches,
    ) {
    }

    public function kind(): string
    {
        return 'series';
    }

    public function route(): string
    {
        return 'series';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $id = $job->parameters['series'] ?? null;
        $series = \is_int($id) ? $this->book->find($id) : null;
        if (null === $series || null !== $series->endedAt) {
            throw new \RuntimeException('This series is not open any more.');
        }
        // A flight that was broken off while its log was looked at would count as flown and tell nothing.
        foreach ($this->book->looked($series, false) as $log) {
            $progress->at(0.0, "looking at $log->code, which was left");
            $this->analyses->compute($log);
        }
        $left = $this->book->remaining($series);
        $all = \count($left);
        $flown = [];
        $stopped = null;
        try {
            foreach ($left as $n => $value) {
                $progress->at($n / max(1, $all), \sprintf('flight %d of %d: %s at %s', $n + 1, $all, $series->settings[0], $value));
                if (PackAlarm::None !== $this->benches->of($series->craft)->state()->alarm) {
                    $stopped = 'the pack is low; connect a full one, then go on';
                    break;
                }
                $this->put($series, $series->plan()->at($value, $series->base), "series: {$series->settings[0]} at $value");
                $log = $this->fly($job, $series, $progress, [$n / $all, 1 / $all]);
                $flown[] = $log;
                $stopped = $this->stop($log);
                if (null !== $stopped) {
                    break;
                }
            }
        } finally {
            $this->put($series, $series->base->where(
                static fn (string $name): bool => \in_array($name, $series->settings, true),
            )->toArray(), 'series: back to what stood before');
        }

        $said = "The series was stopped: $stopped. What stood before is back.";

        return ['logs' => $flown] + (null === $stopped ? [] : [JobHandler::HALF => $said]);
    }

    /** @param array<string, float|int|bool|string> $values */
    private function put(Series $series, array $values, string $reason): void
    {
        $craft = $series->craft;
        $this->entities->refresh($craft);
        $other = SettingSet::of($values)->where(
            static fn (string $name): bool => !Setting::same($craft->settings[$name] ?? '', $values[$name]),
        );
        if ($other->isEmpty()) {
            return;
        }
        $this->staging->stage($craft, $other->toArray());
        $this->commit->run($craft, $reason, true);
    }

    /** @param array{float, float} $part from which share of the whole, and how much of it */
    private function fly(Job $job, Series $series, JobProgress $progress, array $part): int
    {
        $order = new Job($series->craft, 'fly', $job->title, [
            'card' => $series->card->value,
            'seed' => 1000 + $this->logs->countAll($series->craft),
            'seconds' => min(self::SECONDS, $series->card->seconds()),
        ], microtime(true));
        $order->id = $job->id;
        foreach ($this->handlers as $handler) {
            if ($handler->kind() === $order->kind) {
                $log = $handler->run($order, $progress->part(...$part))['log'] ?? null;

                return \is_int($log) ? $log : throw new \RuntimeException('The flight left no log.');
            }
        }
        throw new \RuntimeException('Nothing here flies.');
    }

    /** Why no further flight of it is to be flown. */
    private function stop(int $id): ?string
    {
        $log = $this->entities->find(Log::class, $id);
        if (null === $log) {
            return null;
        }
        if (!$this->analyses->has($log)) {
            $this->analyses->compute($log);
        }

        return self::why($this->analyses->report($log));
    }

    private static function why(Report $report): ?string
    {
        foreach ($report->incidents as $incident) {
            if ($incident->kind->isOfMotor()) {
                return 'a motor stopped pushing';
            }
        }
        foreach ($report->verdicts as $axis => $verdict) {
            if (TermState::Oscillation === $verdict->verdict) {
                return "$axis swung";
            }
        }

        return null;
    }
}
