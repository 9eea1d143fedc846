<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Columns;

use Ortholex\Core\FlightLog\Traces;

/** One row of the table: a name that says this may be these traces, each with a score from 0 to 1. */
final readonly class ColumnRule
{
    /**
     * @param \Closure(ColumnName): bool                        $applies
     * @param \Closure(ColumnName): list<array{string, float}> $means
     */
    private function __construct(private \Closure $applies, private \Closure $means)
    {
    }

    /**
     * What the first rule that applies makes of a name.
     *
     * @return list<array{string, float}> traces with scores, lower where words are left unexplained
     */
    public static function read(ColumnName $name): array
    {
        foreach (self::table() as $rule) {
            if (($rule->applies)($name)) {
                return array_map(
                    static fn (array $one): array => [$one[0], round($one[1] * $name->share ** 1.5, 3)],
                    ($rule->means)($name),
                );
            }
        }

        return [];
    }

    /**
     * The surest first. Long because it is the table itself, a rule after the other.
     *
     * @return iterable<self>
     */
    private static function table(): iterable
    {
        yield new self(static fn (ColumnName $n): bool => $n->has(Vocabulary::ERROR), static fn (ColumnName $n): array => []);
        // A fourth of three setpoints is the throttle, most likely: that is asked.
        yield new self(
            static fn (ColumnName $n): bool => null === $n->axis && ColumnName::FOURTH === $n->nth && $n->says('setpoint'),
            static fn (ColumnName $n): array => [['throttle_pct', 0.75]],
        );
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->on && $n->says('setpoint') && !$n->says('accel') && !$n->has(['stick', 'rc']),
            static fn (ColumnName $n): array => [["setpoint_{$n->on}_dps", $n->sure()]],
        );
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->on && $n->says('accel'),
            static fn (ColumnName $n): array => [
                ['accel_'.(['roll' => 'x', 'pitch' => 'y', 'yaw' => 'z'][$n->on] ?? '').'_g', $n->sure()],
            ],
        );
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->on
                && null !== $n->term
                && !$n->says('rate')
                && ($n->has(Vocabulary::OF_TERMS) || 2 === \count($n->words)),
            static fn (ColumnName $n): array => [["term_{$n->term}_{$n->on}", $n->sure() - 0.02]],
        );
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->on && $n->says('rate'),
            static fn (ColumnName $n): array => [
                ["rate_measured_{$n->on}_dps", $n->isFiltered() ? 0.2 : ($n->isRaw() ? $n->sure() : 0.84)],
                ["rate_filtered_{$n->on}_dps", $n->isFiltered() ? $n->sure() : ($n->isRaw() ? 0.2 : 0.82)],
            ],
        );
        // What an axis does, with no word for what of it: its rate, as likely as not.
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->axis
                && ($n->has(Vocabulary::ACTUAL) || $n->isRaw() || $n->has(Vocabulary::FILTERED))
                && (!$n->says('output') || $n->has(['act']))
                && !$n->says('stick'),
            static fn (ColumnName $n): array => [
                ["rate_measured_{$n->axis}_dps", $n->has(Vocabulary::FILTERED) ? 0.2 : 0.8],
                ["rate_filtered_{$n->axis}_dps", $n->has(Vocabulary::FILTERED) ? 0.8 : 0.6],
            ],
        );
        yield new self(
            static fn (ColumnName $n): bool => $n->says('rpm'),
            static fn (ColumnName $n): array => [['rpm_'.$n->motor(), $n->has(['erpm', 'e']) ? 0.5 : 0.95]],
        );
        // A stick moves by no deg/s: what is meant is the rotation that it asks for, most likely; that is asked.
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->axis && $n->says('stick') && $n->has(Vocabulary::OF_ROTATION),
            static fn (ColumnName $n): array => [["setpoint_{$n->axis}_dps", 0.75], ["stick_{$n->axis}_us", 0.5]],
        );
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->axis && $n->says('stick'),
            static fn (ColumnName $n): array => [["stick_{$n->axis}_us", 0.92]],
        );
        yield new self(
            static fn (ColumnName $n): bool => $n->says('output') && null === $n->axis && $n->hasMotor(),
            static fn (ColumnName $n): array => [["output_{$n->motor()}_pct", 0.94]],
        );
        yield new self(
            static fn (ColumnName $n): bool => $n->says('throttle'),
            static fn (ColumnName $n): array => [
                $n->says('stick') ? ['stick_throttle_us', 0.9] : ['throttle_pct', 0.94],
                ['throttle_pct', 0.7],
            ],
        );
        $plain = ['battery' => ['battery_v', 0.93], 'current' => ['current_a', 0.93], 'time' => [Traces::TIME, 0.95]];
        foreach ($plain as $quantity => $means) {
            yield new self(
                static fn (ColumnName $n): bool => $n->says($quantity),
                static fn (ColumnName $n): array => [$means],
            );
        }
        // A place and nothing else: most likely what its motor was asked for.
        yield new self(
            static fn (ColumnName $n): bool => $n->isPlace(),
            static fn (ColumnName $n): array => [["output_{$n->motor()}_pct", 0.7]],
        );
        // An axis and nothing else: most likely its rate, but that is a guess.
        yield new self(
            static fn (ColumnName $n): bool => null !== $n->axis && 1 === \count($n->words),
            static fn (ColumnName $n): array => [["rate_measured_{$n->axis}_dps", 0.5]],
        );
    }
}
