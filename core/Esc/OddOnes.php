<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

/** Who differs from the majority, in one row of like things; or the groups they stand in, where none has a majority. */
final readonly class OddOnes
{
    /**
     * @param float|int|bool|string|null $common what most have; null when no value has a majority
     * @param list<string>               $odd    places that differ from it; all when there is no majority
     * @param list<list<string>>         $groups places that have the same, the largest first; none when there is a majority
     */
    private function __construct(public float|int|bool|string|null $common, public array $odd, public array $groups = [])
    {
    }

    public function isSplit(): bool
    {
        return [] !== $this->groups;
    }

    /**
     * A strict majority of those that have a value rules; without one, nobody is odd against anybody, so all are named, by group.
     *
     * @param array<string, float|int|bool|string> $values by place
     */
    public static function of(array $values): self
    {
        $groups = [];
        foreach ($values as $place => $value) {
            $groups[json_encode($value, \JSON_PRESERVE_ZERO_FRACTION)][] = $place;
        }
        if (\count($groups) < 2) {
            return new self([] === $values ? null : reset($values), []);
        }
        foreach ($groups as $places) {
            if (2 * \count($places) > \count($values)) {
                return new self($values[$places[0]], array_values(array_diff(array_keys($values), $places)));
            }
        }

        usort($groups, static fn (array $a, array $b): int => \count($b) <=> \count($a));

        return new self(null, array_keys($values), $groups);
    }
}
