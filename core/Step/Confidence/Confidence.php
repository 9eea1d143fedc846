<?php

declare(strict_types=1);

namespace Ortholex\Core\Step\Confidence;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Step\Exclusion;
use Ortholex\Core\Step\StepResult;

/** How far a step response can be believed: a grade, the reasons, and what to fly instead. */
final readonly class Confidence
{
    /** Windows below which the flight says little, and next to nothing. */
    private const FEW_WINDOWS = 16;

    private const VERY_FEW_WINDOWS = 6;

    /** Width of an interval from which a number is uncertain, and hardly known. */
    private const UNCERTAIN_DELAY_MS = 4.0;

    private const UNKNOWN_DELAY_MS = 10.0;
    private const UNCERTAIN_PEAK = 0.12;

    /** How far the steady-state value may lie off 1. */
    private const STEADY_OFF = 0.07;

    private const STEADY_FAR_OFF = 0.2;

    /** RMS of feed-forward over that of P from which the curve is not P and D alone. */
    private const FEED_FORWARD = 0.1;

    /** Spread of D's gain beyond which it was not one tune that flew. */
    private const D_VARIES = 0.15;

    /** Share of windows left out by hand that costs confidence. */
    private const MUCH_BY_HAND = 0.25;

    /** Outputs at their ends for this share of the time cost confidence, for the second twice. */
    private const AT_ENDS = 0.08;

    private const MUCH_AT_ENDS = 0.35;

    /** Of the band that a response needs, so much must have been excited; and this in any case. */
    private const BAND_SHARE = 0.5;

    private const LEAST_BAND_HZ = 1.0;

    /** From here on the response is no plain loop's, and what the stick did not excite is a guess. */
    private const STRAYED = 0.45;

    /** An axis moved by less than this was not moved, deg/s RMS. */
    private const IDLE_AXIS_DPS = 15.0;

    /** @param list<Fact> $reasons of ConfidenceReason */
    private function __construct(public Grade $grade, public array $reasons, public ?FlyInstead $flyInstead)
    {
    }

    /**
     * @param float      $feedForward   RMS of the feed-forward term over RMS of P, 0 when it was off
     * @param float      $otherMovement RMS of the busiest other axis' setpoint, deg/s
     * @param float|null $dSpread       spread of D's gain over the flight, as Steadiness gives it; null when unknown
     * @param bool       $unseen        whether feed-forward or added D may have flown without a trace
     * @param AtEnds|null $ends         how often outputs stood at their ends; null where they were not logged
     */
    public static function in(
        StepResult $step,
        float $feedForward,
        float $otherMovement,
        ?float $dSpread = null,
        bool $unseen = false,
        ?AtEnds $ends = null,
    ): self {
        if (self::isTooSlow($step)) {
            return new self(
                Grade::None,
                [Fact::of(ConfidenceReason::BandTooNarrow, hz: $step->bandHz, needed_hz: self::neededHz($step))],
                FlyInstead::LongerAndLarger,
            );
        }

        $found = [
            ...self::ofWindows($step),
            ...self::ofIntervals($step),
            ...self::ofTune($step, $feedForward, $dSpread),
            ...self::byHand($step),
            ...self::ofEnds($ends),
        ];
        if ($unseen) {
            $found[] = [Fact::of(ConfidenceReason::TermsUnseen), 1];
        }
        if ($step->strayed > self::STRAYED) {
            $found[] = [Fact::of(ConfidenceReason::NoPlainLoop, pct: 100 * $step->strayed), 1];
        }
        if ($otherMovement < self::IDLE_AXIS_DPS) {
            $found[] = [Fact::of(ConfidenceReason::OneAxisOnly), 0];
        }
        $grade = match (array_sum(array_column($found, 1))) {
            0 => Grade::Firm,
            1 => Grade::Fair,
            default => Grade::Weak,
        };

        return new self(
            $grade,
            array_column($found, 0),
            Grade::Firm === $grade
                ? null
                : self::instead($feedForward > self::FEED_FORWARD, null !== $dSpread && $dSpread > self::D_VARIES),
        );
    }

    public static function none(Fact $why): self
    {
        return new self(Grade::None, [$why], FlyInstead::LongerAndLarger);
    }

    /** @return array{grade: string, reasons: list<array<string, mixed>>, fly_instead: ?string} */
    public function toArray(): array
    {
        return [
            'grade' => $this->grade->value,
            'reasons' => array_map(static fn (Fact $f): array => $f->toArray(), $this->reasons),
            'fly_instead' => $this->flyInstead?->value,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $reason = static fn (Stored $r): Fact => Fact::fromArray($r, ConfidenceReason::class, Exclusion::class);

        return new self(
            $data->choice('grade', Grade::class),
            array_map($reason, $data->rows('reasons')),
            FlyInstead::tryFrom($data->optionalText('fly_instead') ?? ''),
        );
    }

    /** @return list<array{Fact, int}> reasons, and what each costs */
    private static function ofWindows(StepResult $step): array
    {
        return $step->used >= self::FEW_WINDOWS
            ? []
            : [
                [
                    Fact::of(ConfidenceReason::FewWindows, windows: $step->used, seconds: $step->seconds),
                    $step->used < self::VERY_FEW_WINDOWS ? 2 : 1,
                ],
            ];
    }

    /** @return list<array{Fact, int}> */
    private static function ofIntervals(StepResult $step): array
    {
        $delay = $step->intervals['delay_ms'] ?? null;
        $peak = $step->intervals['peak'] ?? null;
        if (null === $delay || null === $peak) {
            return [[Fact::of(ConfidenceReason::NoIntervals), 1]];
        }
        $found = [];
        $width = $delay[1] - $delay[0];
        if ($width > self::UNCERTAIN_DELAY_MS) {
            $found[] = [Fact::of(ConfidenceReason::DelayUncertain, ms: $width), $width > self::UNKNOWN_DELAY_MS ? 2 : 1];
        }
        if ($peak[1] - $peak[0] > self::UNCERTAIN_PEAK) {
            $found[] = [Fact::of(ConfidenceReason::PeakUncertain, width: $peak[1] - $peak[0]), 1];
        }

        return $found;
    }

    /** @return list<array{Fact, int}> */
    private static function ofTune(StepResult $step, float $feedForward, ?float $dSpread): array
    {
        $found = [];
        $off = abs($step->numbers->steady - 1);
        if ($off > self::STEADY_OFF) {
            $found[] = [Fact::of(ConfidenceReason::SteadyOff, steady: $step->numbers->steady), $off > self::STEADY_FAR_OFF ? 2 : 1];
        }
        if ($feedForward > self::FEED_FORWARD) {
            $found[] = [Fact::of(ConfidenceReason::FeedForwardOn, pct: 100 * $feedForward), 1];
        }
        if (null !== $dSpread && $dSpread > self::D_VARIES) {
            $found[] = [Fact::of(ConfidenceReason::DVaried, pct: 100 * $dSpread), 1];
        }

        return $found;
    }

    /** Moves so slow that what a response needs was never asked. */
    private static function isTooSlow(StepResult $step): bool
    {
        return $step->bandHz < self::neededHz($step);
    }

    /** A rise of so long takes frequencies up to about 0.35 over it (Bandwidth times rise time of a first-order lag); half will do. */
    private static function neededHz(StepResult $step): float
    {
        $rise = $step->numbers->riseMs ?? $step->numbers->delayMs ?? null;

        return null === $rise || $rise <= 0 ? self::LEAST_BAND_HZ : max(self::LEAST_BAND_HZ, (self::BAND_SHARE * 350) / $rise);
    }

    /** @return list<array{Fact, int}> */
    private static function ofEnds(?AtEnds $ends): array
    {
        if (null === $ends || $ends->share < self::AT_ENDS) {
            return [];
        }
        $pct = static fn (string $size): float => 100 * ($ends->bySize[$size] ?? 0.0);

        return [
            [
                Fact::of(
                    ConfidenceReason::AtEnds,
                    pct: 100 * $ends->share,
                    small_pct: $pct('small'),
                    medium_pct: $pct('medium'),
                    large_pct: $pct('large'),
                ),
                $ends->share > self::MUCH_AT_ENDS ? 2 : 1,
            ],
        ];
    }

    /** @return list<array{Fact, int}> */
    private static function byHand(StepResult $step): array
    {
        $excluded = $step->excluded[Exclusion::ByHand->value] ?? 0;

        return 0 === $excluded
            ? []
            : [
                [
                    Fact::of(ConfidenceReason::ExcludedByHand, windows: $excluded),
                    $excluded > self::MUCH_BY_HAND * ($step->used + $excluded) ? 1 : 0,
                ],
            ];
    }

    private static function instead(bool $feedForward, bool $dVaried): FlyInstead
    {
        return match (true) {
            $feedForward && $dVaried => FlyInstead::WithoutFeedForwardAndAddedD,
            $feedForward => FlyInstead::WithoutFeedForward,
            $dVaried => FlyInstead::WithSteadyD,
            default => FlyInstead::LongerAndLarger,
        };
    }
}
