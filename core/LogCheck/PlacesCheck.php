<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Craft\Place;
use Ortholex\Core\Incident\Motion\CraftModel;

/**
 * Whether the motors sit where the log, or who read it, says: what each does to roll and pitch, learned from the motion, against what
 * its place would do. Where another order of the same places fits far better, that is told.
 */
final readonly class PlacesCheck
{
    /** Likeness of the places as they are said, below which they are doubted; and of the better order, from which on it is told. */
    private const DOUBTED = 0.5;

    private const TOLD = 0.85;

    /** A model must explain this share of how it tilts, on either axis. */
    private const LEAST_R2 = 0.3;

    /** More motors have too many orders to try. */
    private const MOST_MOTORS = 6;

    /**
     * @param array<string, string> $better   place that each motor seems to sit at, by the place it is said to sit at
     * @param float                 $likeness cosine of what motors do and of where they are said to sit
     */
    private function __construct(public array $better, public float $likeness)
    {
    }

    /**
     * @param list<string> $places as they are said
     *
     * @return self|null null where nothing contradicts them, or nothing can be told
     */
    public static function of(?CraftModel $model, array $places): ?self
    {
        $n = \count($places);
        if (
            null === $model
            || $n < 3
            || $n > self::MOST_MOTORS
            || \count(array_filter(array_map(Place::tryFrom(...), $places))) < $n
            || min($model->r2[0], $model->r2[1]) < self::LEAST_R2
        ) {
            return null;
        }
        $said = $model->likeness($places);
        if ($said >= self::DOUBTED) {
            return null;
        }
        $best = $places;
        $most = -\INF;
        foreach (self::orders($places) as $order) {
            $likeness = $model->likeness($order);
            if ($likeness > $most) {
                $most = $likeness;
                $best = $order;
            }
        }

        $better = array_filter(
            array_combine($places, $best),
            static fn (string $is, string $of): bool => $is !== $of,
            \ARRAY_FILTER_USE_BOTH,
        );

        return $most < self::TOLD ? null : new self($better, $said);
    }

    /**
     * @param list<string> $places
     *
     * @return iterable<list<string>>
     */
    private static function orders(array $places): iterable
    {
        if (\count($places) < 2) {
            yield $places;

            return;
        }
        foreach ($places as $i => $first) {
            $rest = $places;
            unset($rest[$i]);
            foreach (self::orders(array_values($rest)) as $order) {
                yield [$first, ...$order];
            }
        }
    }
}
