<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Step\Confidence\Grade;

/**
 * Several flights of one axis by how well they follow a step: the least integral of the absolute error comes first
 * (Graham and Lathrop 1953), as it counts delay, overshoot and ringing in one figure, ms. Flights share a place only while the interval
 * of each overlaps with that of every other. What cannot be believed at all has none.
 */
final readonly class StepRanking
{
    /**
     * @param int|null                  $place    from 1; null where the log does not tell
     * @param array{float, float}|null  $interval of the error, ms
     */
    private function __construct(
        public string $name,
        public ?int $place,
        public ?float $errorMs,
        public ?array $interval,
        public Grade $grade,
    ) {
    }

    /**
     * @param array<string, array{error_ms: float|null, interval: array{float, float}|null, grade: Grade}> $flights by name
     *
     * @return list<self> best first
     */
    public static function of(array $flights): array
    {
        $told = array_filter($flights, static fn (array $f): bool => null !== $f['error_ms'] && Grade::None !== $f['grade']);
        uasort($told, static fn (array $a, array $b): int => $a['error_ms'] <=> $b['error_ms']);
        $rows = [];
        $place = 0;
        $reach = -\INF;
        $count = 0;
        foreach ($told as $name => $f) {
            ++$count;
            if (($f['interval'][0] ?? $f['error_ms']) > $reach) {
                $place = $count;
                $reach = \INF;
            }
            $reach = min($reach, $f['interval'][1] ?? $f['error_ms']);
            $rows[] = new self((string) $name, $place, $f['error_ms'], $f['interval'], $f['grade']);
        }
        foreach (array_diff_key($flights, $told) as $name => $f) {
            $rows[] = new self((string) $name, null, null, null, $f['grade']);
        }

        return $rows;
    }
}
