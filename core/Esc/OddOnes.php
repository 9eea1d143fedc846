<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

/** Who differs from the majority, in one row of like things. */
final readonly class OddOnes
{
    /**
     * @param float|int|bool|string|null $common what most have; null when no value has a majority
     * @param list<string>               $odd    places that differ from it; all when there is no majority
     */
    private function __construct(public float|int|bool|string|null $common, public array $odd)
    {
    }

    /**
     * A strict majority of those that have a value rules; without one, nobody is odd against anybody, so all are named.
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

        return new self(null, array_keys($values));
    }
}
