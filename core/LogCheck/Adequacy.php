<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\Clock\Pieces;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/** What a log can be used for: throttle covered, motion per axis, length, and what is missing. */
final readonly class Adequacy
{
    /** Sampled more slowly than this a log tells nothing of how a craft flies, Hz. */
    public const LEAST_RATE_HZ = 40.0;

    private const BIN_PCT = 10;

    /** So many samples a second say how far an axis was moved. */
    private const LOOKED_AT_HZ = 250.0;

    /** A step response needs this much flight, and an axis this much motion, deg/s RMS. */
    private const LEAST_S = 12.0;

    private const MOVED_DPS = 40.0;

    /** A tenth of throttle counts as flown from this share of time on, and noise needs this many of them. */
    private const FLOWN_SHARE = 0.005;

    private const LEAST_LEVELS = 5;

    /** Motors and frames shake up to here; sampled below this rate, the log does not hold it, Hz. */
    private const NOISE_RATE_HZ = 900.0;

    /** Fewer outputs than this are no craft. */
    private const LEAST_OUTPUTS = 3;

    /**
     * @param list<float>          $throttleShare share of time per ten percent of throttle; empty when it was not logged
     * @param array<string, float> $motion        RMS of the setpoint by axis, deg/s
     * @param list<Fact>           $can           of AdequacyCode
     * @param list<Fact>           $cannot        with the figures of the reason
     */
    private function __construct(
        public array $throttleShare,
        public array $motion,
        public float $durationS,
        public array $can,
        public array $cannot,
    ) {
    }

    /** @param FlightLog|null $some what of it steps and noise were taken from, where that was not all */
    public static function of(FlightLog $log, ?FlightLog $some = null): self
    {
        $some ??= $log;
        $share = self::throttleShare($some);
        $every = max(1, (int) round($log->clock->rateHz / self::LOOKED_AT_HZ));
        $motion = [];
        foreach (Axis::cases() as $axis) {
            $set = Traces::setpoint($axis);
            $motion[$axis->value] = $log->has($set) ? round(Statistics::deviation($some->column($set)->each($every)), 1) : 0.0;
        }
        $moved = array_keys(array_filter($motion, static fn (float $dps): bool => $dps >= self::MOVED_DPS));
        $duration = $log->clock->durationS();
        $slow = $log->clock->rateHz < self::LEAST_RATE_HZ;
        $facts = $slow ? [Fact::of(AdequacyCode::FarTooSlow, rate_hz: $log->clock->rateHz, least_hz: self::LEAST_RATE_HZ)] : [
            self::step($log, $moved, $duration),
            ...self::noise($log, $share),
            [] === $moved ? null : Fact::of(AdequacyCode::Lag, axes: $moved),
            Fact::of(self::hasTerms($log) ? AdequacyCode::TermVerdicts : AdequacyCode::NoTerms),
            Fact::of(\count($log->places()) >= self::LEAST_OUTPUTS ? AdequacyCode::WhoStoppedPushing : AdequacyCode::NoOutputs),
            self::thinned($log, $some),
        ];
        $facts = array_filter($facts, static fn (?Fact $f): bool => null !== $f);
        $isUse = static fn (Fact $f): bool => $f->code instanceof AdequacyCode && $f->code->isUse();

        return new self(
            $share,
            $motion,
            round($duration, 2),
            array_values(array_filter($facts, $isUse)),
            array_values(array_filter($facts, static fn (Fact $f): bool => !$isUse($f))),
        );
    }

    /** Whether anything was asked of any axis, as far as the log tells. */
    public function hasMotion(): bool
    {
        return max([0.0, ...array_values($this->motion)]) > 0.0;
    }

    public function allows(AdequacyCode $use): bool
    {
        return [] !== array_filter($this->can, static fn (Fact $f): bool => $f->is($use));
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $plain = static fn (Fact $f): array => $f->toArray();

        return [
            'throttle_share' => $this->throttleShare,
            'motion_dps' => $this->motion,
            'duration_s' => $this->durationS,
            'can' => array_map($plain, $this->can),
            'cannot' => array_map($plain, $this->cannot),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $fact = static fn (Stored $f): Fact => Fact::fromArray($f, AdequacyCode::class);
        $motion = [];
        foreach (Axis::cases() as $axis) {
            $motion[$axis->value] = $data->part('motion_dps')->number($axis->value);
        }

        return new self(
            $data->numbers('throttle_share'),
            $motion,
            $data->number('duration_s'),
            array_map($fact, $data->rows('can')),
            array_map($fact, $data->rows('cannot')),
        );
    }

    /** @return list<float> */
    private static function throttleShare(FlightLog $log): array
    {
        if (!$log->has('throttle_pct')) {
            return [];
        }
        $counts = array_fill(0, 10, 0);
        foreach ($log->column('throttle_pct')->each(10) as $pct) {
            ++$counts[max(0, min(9, (int) ($pct / self::BIN_PCT)))];
        }

        return array_map(static fn (int $c): float => round($c / max(1, array_sum($counts)), 4), array_values($counts));
    }

    private static function thinned(FlightLog $log, FlightLog $some): ?Fact
    {
        return $some === $log ? null : Fact::of(
            AdequacyCode::Thinned,
            stretches: \count($some->clock->segments),
            each_s: Pieces::SECONDS,
            pct: 100.0 * $some->clock->samples / $log->clock->samples,
        );
    }

    /** @param list<string> $moved axes */
    private static function step(FlightLog $log, array $moved, float $durationS): Fact
    {
        return match (true) {
            !self::hasSetpoint($log) => Fact::of(AdequacyCode::NoSetpoint),
            [] !== $moved && $durationS >= self::LEAST_S => Fact::of(AdequacyCode::StepResponse, axes: $moved),
            $durationS < self::LEAST_S => Fact::of(AdequacyCode::TooShort, least_s: self::LEAST_S),
            default => Fact::of(AdequacyCode::SticksStill),
        };
    }

    /**
     * @param list<float> $share
     *
     * @return list<Fact>
     */
    private static function noise(FlightLog $log, array $share): array
    {
        $measured = [] !== array_filter(Axis::cases(), static fn (Axis $a): bool => $log->has(Traces::measuredRate($a)));
        $levels = \count(array_filter($share, static fn (float $s): bool => $s > self::FLOWN_SHARE));
        $facts = [
            match (true) {
                !$measured => Fact::of(AdequacyCode::NoMeasuredRate),
                [] === $share => Fact::of(AdequacyCode::NoThrottle),
                $levels < self::LEAST_LEVELS => Fact::of(AdequacyCode::FewThrottleLevels, pct: self::BIN_PCT * $levels),
                default => Fact::of(AdequacyCode::NoiseAgainstThrottle),
            },
        ];
        if ($measured && $log->clock->rateHz < self::NOISE_RATE_HZ) {
            $facts[] = Fact::of(AdequacyCode::SampledSlowly, from_hz: $log->clock->rateHz / 2, rate_hz: $log->clock->rateHz);
        }

        return $facts;
    }

    private static function hasSetpoint(FlightLog $log): bool
    {
        return [] !== array_filter(Axis::cases(), static fn (Axis $a): bool => $log->has(Traces::setpoint($a)));
    }

    private static function hasTerms(FlightLog $log): bool
    {
        return $log->has(Traces::term('p', Axis::Roll)) && $log->has(Traces::term('d', Axis::Roll));
    }
}
