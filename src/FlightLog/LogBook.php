<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Settings\Setting;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** A craft's logs, and which one a sheet is about. */
final readonly class LogBook
{
    private const NEWEST_FIRST = ['flownAt' => 'DESC', 'id' => 'DESC'];

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Log> newest first */
    public function of(Craft $craft): array
    {
        return $this->entities->getRepository(Log::class)->findBy(['craft' => $craft, 'putAwayAt' => null], self::NEWEST_FIRST, 200);
    }

    /** How many there are; those put away do not count. */
    public function count(Craft $craft): int
    {
        return $this->entities->getRepository(Log::class)->count(['craft' => $craft, 'putAwayAt' => null]);
    }

    /** How many there ever were: a number for the next flight. */
    public function countAll(Craft $craft): int
    {
        return $this->entities->getRepository(Log::class)->count(['craft' => $craft]);
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
            : $this->entities->getRepository(Log::class)->findOneBy(['craft' => $craft, 'putAwayAt' => null], self::NEWEST_FIRST);
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
                static fn (int $id): bool => $id > 0 && $id !== $request->query->getInt('without'),
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
