<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\Core\LogCheck\FlightPlan;
use Ortholex\Core\LogCheck\FlownLog;
use Ortholex\Core\Report\StepReport;
use Ortholex\Core\Settings\Setting;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** A craft's logs, and which one a sheet is about. */
final readonly class LogBook
{
    /** Logs that a plan looks back over. */
    private const LOOKED_BACK = 12;

    public function __construct(private EntityManagerInterface $entities, private AnalysisStore $analyses)
    {
    }

    /** @return list<Log> newest first */
    public function of(Craft $craft): array
    {
        return $this->entities->getRepository(Log::class)->findBy(['craft' => $craft, 'putAwayAt' => null], ['id' => 'DESC'], 200);
    }

    /**
     * @throws NotFoundHttpException when it is not this craft's
     */
    public function one(Craft $craft, int $id, bool $evenAway = false): Log
    {
        return $this->entities
            ->getRepository(Log::class)
            ->findOneBy(['craft' => $craft, 'id' => $id] + ($evenAway ? [] : ['putAwayAt' => null])) ??
            throw new NotFoundHttpException("{$craft->name} has no log with this number.");
    }

    /** @return list<Passage> of a log, in order of time */
    public function passages(?Log $log): array
    {
        return null === $log ? [] : $this->entities->getRepository(Passage::class)->findBy(['log' => $log], ['fromS' => 'ASC']);
    }

    public function passage(?Log $log, int $id): ?Passage
    {
        return null === $log || $id < 1 ? null : $this->entities->getRepository(Passage::class)->findOneBy(['log' => $log, 'id' => $id]);
    }

    /** The log asked for, or the newest; null when there is none. */
    public function chosen(Craft $craft, int $id): ?Log
    {
        return $id > 0
            ? $this->one($craft, $id)
            : $this->entities->getRepository(Log::class)->findOneBy(['craft' => $craft, 'putAwayAt' => null], ['id' => 'DESC']);
    }

    /**
     * Logs that a sheet lays beside the one it is about.
     *
     * @return list<Log> without doubles, in the order asked for
     *
     * @throws NotFoundHttpException when one is not this craft's
     */
    public function besides(Craft $craft, Request $request, int $most): array
    {
        $asked = $request->query->all()['beside'] ?? [];
        $ids = array_unique(
            array_filter(
                array_map(static fn (mixed $id): int => is_numeric($id) ? (int) $id : 0, \is_array($asked) ? $asked : [$asked]),
                static fn (int $id): bool => $id > 0,
            ),
        );

        return array_map(fn (int $id): Log => $this->one($craft, $id), array_values(\array_slice($ids, 0, $most)));
    }

    /** @return list<Log> put away, newest first */
    public function away(Craft $craft): array
    {
        return array_values(
            array_filter(
                $this->entities->getRepository(Log::class)->findBy(['craft' => $craft], ['id' => 'DESC'], 400),
                static fn (Log $l): bool => null !== $l->putAwayAt,
            ),
        );
    }

    /** Which card to fly next, by what the newest logs can be used for. */
    public function plan(Craft $craft): FlightPlan
    {
        $flown = [];
        foreach (\array_slice($this->of($craft), 0, self::LOOKED_BACK) as $log) {
            if ($this->analyses->has($log)) {
                $flown[] = new FlownLog($log->settings, $this->analyses->report($log)->adequacy);
            }
        }

        return FlightPlan::of($craft->settings, $flown);
    }

    /** @return list<LogRow> newest first */
    public function rows(Craft $craft): array
    {
        $logs = $this->of($craft);
        $rows = [];
        foreach ($logs as $i => $log) {
            $steps = $this->analyses->has($log) ? $this->analyses->report($log)->steps : [];
            $peaks = array_map(static fn (StepReport $s): ?float => $s->numbers?->peak, $steps);
            $rows[] = new LogRow($log, $peaks, isset($logs[$i + 1]) ? self::difference($logs[$i + 1], $log) : []);
        }

        return $rows;
    }

    /**
     * @param list<Log> $besides
     *
     * @return array<string, array<string, array{from: float|int|bool|string, to: float|int|bool|string}>> by code of each
     */
    public static function differences(array $besides, Log $log): array
    {
        $out = [];
        foreach ($besides as $other) {
            $out[$other->code] = self::difference($other, $log);
        }

        return $out;
    }

    /** @return array<string, array{from: float|int|bool|string, to: float|int|bool|string}> settings that two flights do not share */
    public static function difference(Log $before, Log $after): array
    {
        $changed = [];
        foreach ($after->settings as $name => $value) {
            $old = $before->settings[$name] ?? null;
            if (null !== $old && !str_starts_with($name, 'flight.') && !Setting::same($old, $value)) {
                $changed[$name] = ['from' => $old, 'to' => $value];
            }
        }

        return $changed;
    }
}
