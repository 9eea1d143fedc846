<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Signal\Statistics;

/**
 * What the outputs raised slowly tell: the idle output, and whether one motor struggles.
 *
 * For each motor the lowest output from which on its rpm is steady (spread under 5 % over a second, no stall); the
 * idle output is the largest of them plus a margin, and none while one is weak. A motor is weak when it needs clearly
 * more than the median of the others, or stalls or wavers where they turn.
 */
final readonly class RisingOutput
{
    public const STEADY_SPREAD = 0.05;
    private const MARGIN_PCT = 1.0;

    /** How much more output than the others' median makes a motor weak, %. */
    private const LATE_PCT = 1.4;

    /** Share of readings without rotation that is a stall, and how much more than the median's. */
    private const STALLS_SHARE = 0.02;

    private const STALLS_MORE = 3;

    /**
     * @param array<string, float|null> $steadyAt  by place: lowest output with steady rpm, %; null when never
     * @param array<string, Fact>       $weak      by place: why, of Struggle
     */
    private function __construct(public array $steadyAt, public ?float $idlePct, public array $weak)
    {
    }

    /**
     * The idle output as the settings of a craft have it: Loam before 4.2 counts it in microseconds above 1000.
     *
     * @return array<string, float|int> none where no idle was found
     */
    public function idleFor(SettingSet $settings): array
    {
        return match (true) {
            null === $this->idlePct => [],
            $settings->has('motors.idle_permille') => ['motors.idle_permille' => (int) round(10 * $this->idlePct)],
            default => ['motors.idle_pct' => $this->idlePct],
        };
    }

    /**
     * @param array<string, list<array{pct: float, rpm: list<float>}>> $rises by place, outputs rising
     */
    public static function of(array $rises): self
    {
        $steady = $stalls = [];
        foreach ($rises as $place => $steps) {
            $at = null;
            $stalled = 0;
            $read = 0;
            foreach (array_reverse($steps) as ['pct' => $pct, 'rpm' => $rpm]) {
                if (!self::isSteady($rpm)) {
                    break;
                }
                $at = $pct;
            }
            foreach ($steps as ['rpm' => $rpm]) {
                if ([] !== $rpm && max($rpm) > 0) {
                    $stalled += \count(array_filter($rpm, static fn (float $r): bool => $r <= 0));
                    $read += \count($rpm);
                }
            }
            $steady[$place] = $at;
            $stalls[$place] = 0 === $read ? 0.0 : $stalled / $read;
        }
        $weak = [];
        $stallsMost = [] === $stalls ? 0.0 : self::STALLS_MORE * Statistics::median(array_values($stalls));
        foreach ($steady as $place => $at) {
            $others = array_values(
                array_filter($steady, static fn (?float $v, string $p): bool => null !== $v && $p !== $place, \ARRAY_FILTER_USE_BOTH),
            );
            $median = [] === $others ? null : Statistics::median($others);
            $struggle = match (true) {
                null === $at && null === $median => Fact::of(Struggle::NeverSteady),
                null === $at => Fact::of(Struggle::NeverSteadyOthersDid, others_pct: $median),
                null !== $median && $at - $median > self::LATE_PCT => Fact::of(Struggle::SteadyLate, pct: $at, others_pct: $median),
                $stalls[$place] > max(self::STALLS_SHARE, $stallsMost) => Fact::of(Struggle::Stalls, pct: 100 * $stalls[$place]),
                default => null,
            };
            if (null !== $struggle) {
                $weak[$place] = $struggle;
            }
        }
        $sound = array_filter($steady, static fn (?float $v): bool => null !== $v);

        return new self($steady, [] === $sound || [] !== $weak ? null : round(max($sound) + self::MARGIN_PCT, 1), $weak);
    }

    /**
     * What follows when the motors of two places were swapped and the rise was done again.
     *
     * @param string $before  place that was weak before
     * @param string $partner place it was swapped with
     */
    public function afterSwap(string $before, string $partner): Fact
    {
        return match ([isset($this->weak[$before]), isset($this->weak[$partner])]) {
            [false, true] => Fact::of(Struggle::WentWithMotor, place: $partner),
            [true, false] => Fact::of(Struggle::StayedAtPlace, place: $before),
            [true, true] => Fact::of(Struggle::BothNow),
            [false, false] => Fact::of(Struggle::Gone),
        };
    }

    /** @param list<float> $rpm */
    private static function isSteady(array $rpm): bool
    {
        $n = \count($rpm);
        if ($n < 8 || min($rpm) <= 0) {
            return false;
        }
        $mean = array_sum($rpm) / $n;

        return sqrt(array_sum(array_map(static fn (float $r): float => ($r - $mean) ** 2, $rpm)) / $n) < self::STEADY_SPREAD * $mean;
    }
}
