<?php

declare(strict_types=1);

namespace Ortholex\Core\RoadMap;

use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\LogCheck\FlightPlan;
use Ortholex\Core\LogCheck\PlanReason;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\GainTuner;
use Ortholex\Core\Tuning\LoopPrediction;
use Ortholex\Core\Tuning\TermState;

/**
 * The one road of a tune: where a craft stands on it, why, and the next step. Told from what its flights show, never from how often it
 * flew: what is broken or swings, then noise, then damping, firmness, yaw, feed-forward; done when nothing in reach is worth a flight.
 */
final readonly class RoadMap
{
    /** Without feed-forward, rotation that comes later than this asks for some, ms. */
    private const LAGS_MS = 4.0;

    /** Where nothing can be told, P and I are lowered to this share. */
    private const CALMER = 0.65;

    /** What a loop is made of. */
    private const LOOP = '~^(gain\.(roll|pitch|yaw)\.[pid]|rate_path\.|d_path\.|notch\.)~';

    /**
     * @param array<string, float|int|bool|string> $stage what it proposes, by setting
     * @param Card|null                            $card  what to fly: after that, or as it is
     */
    private function __construct(public TuneStep $at, public Fact $why, public array $stage, public ?Card $card)
    {
    }

    /**
     * @param FlightPlan    $plan     what the newest flights can be used for
     * @param SettingSet    $now      on the craft, under current names
     * @param Evidence|null $evidence of the flight that can be believed most
     */
    public static function of(FlightPlan $plan, SettingSet $now, ?Evidence $evidence): self
    {
        if (PlanReason::RepairFirst === $plan->why) {
            return new self(TuneStep::Sound, Fact::of(TuneReason::Repair), [], null);
        }
        if (PlanReason::TakeBackFirst === $plan->why && null !== $plan->since) {
            $back = array_map(static fn (array $was): float|int|bool|string => $was[0], $plan->since->changed);

            return new self(TuneStep::Sound, Fact::of(TuneReason::TakeBack, log: $plan->since->good->name), $back, Card::MixedSticks);
        }
        if (null === $evidence || \in_array($plan->why, [PlanReason::NothingKnown, PlanReason::NoiseUnknown], true)) {
            return new self(TuneStep::Filters, Fact::of(TuneReason::NoiseUnknown), [], Card::HoverAndClimb);
        }
        if (PlanReason::ResponseUnknown === $plan->why) {
            return new self(TuneStep::Damping, Fact::of(TuneReason::ResponseUnknown), [], Card::MixedSticks);
        }

        return self::from($now, $evidence);
    }

    /** From one flight alone. */
    public static function from(SettingSet $now, Evidence $evidence): self
    {
        $isLoop = static fn (string $name): bool => 1 === preg_match(self::LOOP, $name);
        if ($now->where($isLoop)->among($evidence->flown)->toArray() != $evidence->flown->where($isLoop)->among($now)->toArray()) {
            return new self(TuneStep::Damping, Fact::of(TuneReason::NotFlown), [], Card::MixedSticks);
        }
        $filters = RateFilters::of($now, $now->loopHz(), $evidence->rotorHz);

        return self::noise($now, $evidence, $filters)
            ?? self::gains($now, $evidence, $filters)
            ?? self::yaw($now, $evidence, $filters)
            ?? self::feedForward($now, $evidence)
            ?? self::done($evidence, $filters);
    }

    private static function noise(SettingSet $now, Evidence $evidence, RateFilters $filters): ?self
    {
        foreach ([Axis::Roll, Axis::Pitch] as $axis) {
            if (TermState::Noise !== ($evidence->verdicts[$axis->value] ?? null)) {
                continue;
            }
            // Lower D's own low-pass; where it has none left to lower, less D.
            $cutoff = $now->number('d_path.stage.1.cutoff_hz', 100.0);
            $stage = LowPass::Off !== LowPass::of($now, 'd_path', 1) && $cutoff > 60
                ? ['d_path.stage.1.cutoff_hz' => max(50.0, round($cutoff * 0.7 / 5) * 5)]
                : ["gain.{$axis->value}.d" => round($now->number("gain.{$axis->value}.d") * 7) / 10];

            return new self(TuneStep::Filters, Fact::of(TuneReason::DNoise, axis: $axis), $stage, Card::MixedSticks);
        }

        return null;
    }

    private static function gains(SettingSet $now, Evidence $evidence, RateFilters $filters): ?self
    {
        $stage = [];
        $why = null;
        foreach ([Axis::Roll, Axis::Pitch] as $axis) {
            $plant = $evidence->plants[$axis->value] ?? null;
            if (null === $plant) {
                return new self(TuneStep::Damping, Fact::of(TuneReason::NoPlant, axis: $axis), [], Card::MixedSticks);
            }
            $gains = GainSet::ofAxis($now, $axis);
            [$step, $reason] = self::judged($plant, $gains, $filters, $evidence, $axis);
            if (null === $step || null === $reason) {
                continue;
            }
            $better = GainTuner::best($plant, $gains, $filters);
            if (null === $better) {
                // Too far from calm for a model to tell: less of all, and then see.
                $why ??= [$step, Fact::of(TuneReason::NothingInReach, axis: $axis)];
                $calmer = new GainSet(round(2 * self::CALMER * $gains->p) / 2, round(self::CALMER * $gains->i), $gains->d, $gains->ff);
                $stage += self::staged($axis, $calmer, $gains, true);
                continue;
            }
            $isNew = $better->gains->p !== $gains->p || $better->gains->d !== $gains->d;
            if (TuneStep::Firmness === $step && !$isNew) {
                continue;
            }
            $why ??= [$step, $reason];
            $stage += self::staged($axis, $better->gains, $gains, true);
        }

        return null === $why ? null : new self($why[0], $why[1], $stage, Card::MixedSticks);
    }

    /** @return array{TuneStep|null, Fact|null} what is to be done about an axis, and why; nulls where nothing is */
    private static function judged(AxisPlant $plant, GainSet $gains, RateFilters $filters, Evidence $evidence, Axis $axis): array
    {
        $peak = $evidence->peaks[$axis->value] ?? null;
        $modulus = GainTuner::modulus($plant, $gains, $filters);
        if (TermState::Oscillation === ($evidence->verdicts[$axis->value] ?? null)) {
            return [TuneStep::Sound, Fact::of(TuneReason::Swings, axis: $axis)];
        }
        if (null !== $peak && $peak > GainTuner::MOST_PEAK) {
            return [TuneStep::Damping, Fact::of(TuneReason::Rings, axis: $axis, peak: $peak)];
        }
        if ($modulus < GainTuner::LEAST_MODULUS) {
            return [TuneStep::Damping, Fact::of(TuneReason::MarginSmall, axis: $axis, modulus: $modulus)];
        }
        $better = GainTuner::best($plant, $gains, $filters, Axis::Yaw !== $axis);
        if (true === $better?->isQuicker($plant, $gains, $filters, Axis::Yaw !== $axis)) {
            $now = LoopPrediction::of($plant, $gains, $filters)->curve->numbers()->delayMs ?? 0.0;
            $could = $better->prediction->curve->numbers()->delayMs ?? 0.0;

            return [TuneStep::Firmness, Fact::of(TuneReason::Sluggish, axis: $axis, now_ms: $now, could_ms: $could)];
        }

        return [null, null];
    }

    private static function yaw(SettingSet $now, Evidence $evidence, RateFilters $filters): ?self
    {
        $plant = $evidence->plants[Axis::Yaw->value] ?? null;
        if (null === $plant) {
            return null;
        }
        $gains = GainSet::ofAxis($now, Axis::Yaw);
        [$step, $why] = self::judged($plant, $gains, $filters, $evidence, Axis::Yaw);
        $better = null === $step ? null : GainTuner::best($plant, $gains, $filters, false);
        if (null === $why || null === $better) {
            return null;
        }
        $stage = self::staged(Axis::Yaw, $better->gains, $gains, false);

        return [] === $stage ? null : new self(TuneStep::Yaw, $why, $stage, Card::MixedSticks);
    }

    private static function feedForward(SettingSet $now, Evidence $evidence): ?self
    {
        foreach ([Axis::Roll, Axis::Pitch] as $axis) {
            $lag = $evidence->lagsMs[$axis->value] ?? 0.0;
            if ($now->number("gain.{$axis->value}.ff") <= 0.0 && $lag > self::LAGS_MS) {
                return new self(TuneStep::FeedForward, Fact::of(TuneReason::Lags, axis: $axis, lag_ms: $lag), [], Card::MixedSticks);
            }
        }

        return null;
    }

    private static function done(Evidence $evidence, RateFilters $filters): self
    {
        $plant = $evidence->plants[Axis::Roll->value];

        return new self(
            TuneStep::Done,
            Fact::of(
                TuneReason::Tuned,
                motors_ms: 1e3 * ($plant->lagS + $plant->deadS),
                filters_ms: 1e3 * $filters->ratePath->phaseDelay(30.0),
            ),
            [],
            null,
        );
    }

    /** @return array<string, float> only what becomes other */
    private static function staged(Axis $axis, GainSet $to, GainSet $from, bool $withD): array
    {
        $stage = ["gain.{$axis->value}.p" => [$from->p, $to->p], "gain.{$axis->value}.i" => [$from->i, $to->i]];
        if ($withD) {
            $stage["gain.{$axis->value}.d"] = [$from->d, $to->d];
        }

        return array_map(
            static fn (array $two): float => $two[1],
            array_filter($stage, static fn (array $two): bool => abs($two[0] - $two[1]) > 1e-6),
        );
    }
}
