<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\Chains;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Series\SeriesFlight;
use Ortholex\Core\Series\SeriesPlan;
use Ortholex\Core\Series\SeriesResult;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;

/** Series of a craft, and which logs are whose. */
final readonly class SeriesBook
{
    public function __construct(
        private EntityManagerInterface $entities,
        private LogBook $logs,
        private AnalysisStore $analyses,
        private Chains $chains,
    ) {
    }

    /** The one that is open, else the one that ended last. */
    public function newest(Craft $craft): ?Series
    {
        return $this->entities->getRepository(Series::class)->findOneBy(['craft' => $craft], ['id' => 'DESC']);
    }

    /** @return list<Series> all of a craft, newest first */
    public function all(Craft $craft): array
    {
        return array_values($this->entities->getRepository(Series::class)->findBy(['craft' => $craft], ['id' => 'DESC'], 30));
    }

    public function find(int $id): ?Series
    {
        return $this->entities->find(Series::class, $id);
    }

    public function open(Craft $craft): ?Series
    {
        $newest = $this->newest($craft);

        return null === $newest?->endedAt ? $newest : null;
    }

    /**
     * @param list<string> $settings
     *
     * @throws \Ortholex\Core\Series\SeriesError where it cannot be
     * @throws ConflictHttpException             while another is open
     */
    public function begin(Craft $craft, array $settings, float $from, float $to, int $steps, Card $card): Series
    {
        if (null !== $this->open($craft)) {
            throw new ConflictHttpException('Another series is open. End it first; its flights stay.');
        }
        $plan = SeriesPlan::of($craft->settings, $settings, $from, $to, $steps, $card);
        $series = new Series($craft, $plan->settings, $plan->values, $plan->baseline, $card, $craft->settings, new \DateTimeImmutable());
        $this->entities->persist($series);
        $this->entities->flush();

        return $series;
    }

    /**
     * What is replaced, not set, compared by how it shakes.
     *
     * @param list<string> $variants what it is replaced with; the first as it is now
     *
     * @throws \Ortholex\Core\Series\SeriesError where there is nothing to compare
     * @throws ConflictHttpException             while another is open
     */
    public function beginParts(Craft $craft, string $part, array $variants, Card $card): Series
    {
        if (null !== $this->open($craft)) {
            throw new ConflictHttpException('Another series is open. End it first; its flights stay.');
        }
        $plan = SeriesPlan::ofParts(\count($variants), $card);
        $series = new Series($craft, $plan->settings, $plan->values, 1.0, $card, $craft->settings, new \DateTimeImmutable());
        [$series->part, $series->variants] = [$part, $variants];
        $this->entities->persist($series);
        $this->entities->flush();

        return $series;
    }

    public function end(Series $series): void
    {
        $series->endedAt ??= new \DateTimeImmutable();
        $this->entities->flush();
    }

    public function feltHot(Series $series, int $log, bool $hot): void
    {
        $without = array_values(array_filter($series->hot, static fn (int $id): bool => $id !== $log));
        $series->hot = $hot ? [...$without, $log] : $without;
        $this->entities->flush();
    }

    /** @return list<Log> flown since it began, with what it varies at one of its steps; in the order flown */
    public function flown(Series $series): array
    {
        return array_values(array_filter($this->since($series), fn (Log $log): bool => null !== $this->stepOf($series, $log)));
    }

    /** @return list<Log> flown meanwhile, that fit none of its steps, or do not say what they were flown with */
    public function strays(Series $series): array
    {
        return null !== $series->endedAt
            ? []
            : array_values(array_filter($this->since($series), fn (Log $log): bool => null === $this->stepOf($series, $log)));
    }

    /** @return list<Log> in the order flown */
    private function since(Series $series): array
    {
        $logs = [];
        foreach (array_reverse($this->logs->of($series->craft)) as $log) {
            if ($log->flownAt >= $series->beganAt && (null === $series->endedAt || $log->flownAt <= $series->endedAt)) {
                $logs[] = $log;
            }
        }

        return $logs;
    }

    /** A log that fits no step counts as a step of its own. */
    public function count(Series $series, Log $log): void
    {
        $value = $log->settings->number($series->settings[0]);
        $steps = [...$series->steps, $value];
        sort($steps);
        $series->steps = $steps;
        $this->entities->flush();
    }

    /** Notes with which of its parts a log was flown. */
    public function flownWith(Series $series, Log $log, int $variant): void
    {
        $others = array_values(array_filter($log->parts, static fn (array $p): bool => $p['part'] !== $series->part));
        $log->parts = [...$others, ['part' => $series->part, 'place' => '', 'with' => $series->variants[$variant - 1] ?? '']];
        $this->entities->flush();
    }

    /**
     * Those of them whose analysis stands, or those it was broken off of.
     *
     * @return list<Log>
     */
    public function looked(Series $series, bool $at = true): array
    {
        return array_values(array_filter($this->flown($series), fn (Log $log): bool => $at === $this->analyses->has($log)));
    }

    /** @return list<float> values that are still to be flown, in order */
    public function remaining(Series $series): array
    {
        $plan = $series->plan();
        $left = $plan->flights();
        foreach ($this->flown($series) as $log) {
            $value = $this->stepOf($series, $log);
            foreach ($left as $i => $one) {
                if (null !== $value && SeriesPlan::same($one, $value)) {
                    unset($left[$i]);
                    break;
                }
            }
        }

        return array_values($left);
    }

    /** Null while no flight of it tells. */
    public function result(Series $series): ?SeriesResult
    {
        $flights = [];
        foreach ($this->looked($series) as $log) {
            $flights[] = new SeriesFlight(
                (float) $this->stepOf($series, $log),
                $log->code,
                $log->settings,
                $this->analyses->report($log),
                1e3 * $this->chains->filters($log->settings, $this->chains->rotorHz($series->craft, $log))->ratePath->phaseDelay(30.0),
                \in_array((int) $log->id, $series->hot, true),
            );
        }

        return [] === $flights ? null : SeriesResult::of($series->settings, $flights);
    }

    /** Which step a log is of, by its own settings; of parts, by what was noted of it. */
    public function stepOf(Series $series, Log $log): ?float
    {
        $plan = $series->plan();
        if ($plan->isOfParts()) {
            foreach ($log->parts as $part) {
                $at = array_search($part['with'], $series->variants, true);
                if ($part['part'] === $series->part && \is_int($at)) {
                    return $at + 1.0;
                }
            }

            return null;
        }
        if (!$log->settings->has($plan->settings[0])) {
            return null;
        }
        $value = $log->settings->number($plan->settings[0]);
        foreach ([...$plan->values, $plan->baseline] as $step) {
            if (SeriesPlan::same($step, $value)) {
                return $step;
            }
        }

        return null;
    }
}
