<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Incident\Saying\Cause;
use Ortholex\Core\Incident\Saying\Kind;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\LogCheck\PlacesCheck;
use Ortholex\Core\LogCheck\SignCheck;
use Ortholex\Core\Noise\OrderLine;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;
use Ortholex\Core\Report\AxisReport;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\StepOutcome;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\Tuning\TermVerdict;

/** All judgements on a log, gravest first: every analysis speaks here in one form. */
final readonly class Findings
{
    /** Lag beyond which a craft feels late, ms. */
    private const MUCH_LAG_MS = 25.0;

    /** A lead beyond this is no chance, ms. */
    private const LEAD_MS = 0.5;

    /** A standing ridge this strong shakes more than the frame should, dB of (deg/s)²/Hz. */
    private const STRONG_DB = 0.0;

    /** An incident is shown with this much flight around it, s. */
    private const AROUND_S = 0.5;

    /** How far the order of a line may lie off 1 to be the shaft's own, and off a wrong count's to give it away. */
    private const NEAR_ORDER = 0.5;

    private const ORDER_OFF = 0.05;
    private const ORDER_FITS = 0.035;

    /** Two axes agree on an order within this. */
    private const AGREE = 0.04;

    private const LEAST_MAGNETS = 4;
    private const MOST_MAGNETS = 36;

    /** How many causes of a loss are named at once. */
    private const CAUSES_NAMED = 3;

    /** @return list<Finding> */
    public static function of(FlightLog $log, FlightAnalysis $a): array
    {
        $grave = array_values(array_filter($a->incidents, static fn (Incident $i): bool => $i->kind->isGrave()));

        return Finding::sorted([
            ...self::places($a->places),
            ...array_map(self::ofIncident(...), $grave),
            ...self::signs($a->signs),
            ...self::verdicts($a->verdicts),
            ...array_merge(...array_values(array_map(self::ofStep(...), $a->axes))),
            ...self::ridges($a->ridges, (int) ($log->setting('notch.tracking.peaks') ?? 0) > 0),
            ...self::swings($a->ridges, $a->verdicts),
            // A craft short of a motor shakes as it will.
            ...[] === $grave ? self::magnets((int) ($log->setting('motors.rotor_magnets') ?? 0), $a->orders) : [],
            ...self::lags($a->lags),
            ...self::ofDamage($log),
        ]);
    }

    /** @return list<Finding> one, or none where the axis does not tell */
    public static function ofStep(AxisReport $report): array
    {
        if (null === $report->step || Grade::None === $report->confidence->grade) {
            return [];
        }
        $numbers = $report->step->numbers;
        [$weight, $what, $try] = match (StepOutcome::ofPeak($numbers->peak)) {
            StepOutcome::Overshoots => [
                Weight::Mind,
                Fact::of(FindingCode::Overshoots, axis: $report->axis, pct: 100 * ($numbers->peak - 1)),
                Fact::of(Remedy::SeeBetterGains),
            ],
            StepOutcome::FallsShort => [
                Weight::Mind,
                Fact::of(FindingCode::FallsShort, axis: $report->axis, pct: 100 * (1 - $numbers->peak)),
                Fact::of(Remedy::RaiseP),
            ],
            StepOutcome::Clean => [
                Weight::Good,
                Fact::of(FindingCode::AnswersCleanly, axis: $report->axis, ms: $numbers->delayMs ?? 0.0),
                null,
            ],
        };

        return [
            new Finding(
                FindingKind::Step,
                $weight,
                $what,
                round($numbers->peak, 3),
                FindingUnit::ShareOfCommand,
                Certainty::ofGrade($report->confidence->grade),
                $try,
                $report->step->intervals['peak'] ?? null,
                $report->axis,
                setting: null === $try ? null : "gain.{$report->axis->value}.p",
            ),
        ];
    }

    /** @return list<Finding> */
    private static function places(?PlacesCheck $places): array
    {
        if (null === $places || [] === $places->better) {
            return [];
        }
        $said = (string) array_key_first($places->better);

        return [
            new Finding(
                FindingKind::Sign,
                Weight::Wrong,
                Fact::of(FindingCode::MotorsMisplaced, said: $said, is: $places->better[$said]),
                round($places->likeness, 3),
                FindingUnit::MixerCosine,
                Fact::of(Certainty::Likely),
                Fact::of(Remedy::CheckPlaces),
            ),
        ];
    }

    private static function ofIncident(Incident $i): Finding
    {
        $passage = [round(max(0.0, $i->atS - self::AROUND_S), 3), round($i->endS + self::AROUND_S, 3)];
        if (null === $i->place) {
            return new Finding(
                FindingKind::Incident,
                Weight::Wrong,
                Fact::of(
                    match ($i->kind) {
                        Kind::Hit => FindingCode::WasHit,
                        Kind::SensorGlitch => FindingCode::SensorGlitched,
                        default => FindingCode::RotatedUnasked,
                    },
                    at_s: $i->atS,
                ),
                round($i->atS, 3),
                FindingUnit::Second,
                Fact::of(Kind::CannotTell === $i->kind ? Certainty::CannotTell : Certainty::Likely),
                Fact::of(
                    match ($i->kind) {
                        Kind::Hit => Remedy::LookOverCraft,
                        Kind::SensorGlitch => Remedy::LookAtSensor,
                        default => Remedy::LogRpm,
                    },
                ),
                passage: $passage,
            );
        }

        return new Finding(
            FindingKind::Incident,
            Weight::Wrong,
            Fact::of(Kind::MotorWeak === $i->kind ? FindingCode::MotorWeak : FindingCode::MotorLost, at_s: $i->atS, place: $i->place),
            round($i->atS, 3),
            FindingUnit::Second,
            Fact::of(Certainty::ofLead($i->margin)),
            Fact::of(
                Remedy::LookAt,
                causes: array_map(static fn (Cause $c): Fact => Fact::of($c), \array_slice($i->causes(), 0, self::CAUSES_NAMED)),
            ),
            passage: $passage,
            setting: "esc.$i->place.sync_loss_power_cut_pct",
        );
    }

    /**
     * @param list<SignCheck> $signs
     *
     * @return list<Finding> axes that the log counts otherwise than we do
     */
    private static function signs(array $signs): array
    {
        $findings = [];
        foreach ($signs as $c) {
            $what = $c->fact();
            if (null !== $what) {
                $findings[] = new Finding(
                    FindingKind::Sign,
                    Weight::Wrong,
                    $what,
                    round($c->points ?? ($c->follows ?? 0.0), 3),
                    null === $c->points ? FindingUnit::Correlation : FindingUnit::MixerCosine,
                    Fact::of(Certainty::Firm),
                    Fact::of(Remedy::TurnAxis),
                    axis: $c->axis,
                );
            }
        }

        return $findings;
    }

    /**
     * @param array<string, TermVerdict> $verdicts by axis
     *
     * @return list<Finding>
     */
    private static function verdicts(array $verdicts): array
    {
        $findings = [];
        foreach ($verdicts as $name => $v) {
            $axis = Axis::from($name);
            $passage = null === $v->worstAtS ? null : [round($v->worstAtS, 3), round($v->worstAtS + 1, 3)];
            if (TermState::Oscillation === $v->verdict) {
                $findings[] = new Finding(
                    FindingKind::Verdict,
                    Weight::Wrong,
                    Fact::of(FindingCode::POscillates, axis: $axis, hz: $v->hz ?? 0.0, pct: 100 * $v->share),
                    null === $v->hz ? null : round($v->hz, 2),
                    FindingUnit::Hertz,
                    Fact::of(Certainty::Firm),
                    Fact::of(Remedy::LowerP),
                    axis: $axis,
                    passage: $passage,
                    setting: "gain.$name.p",
                );
            } elseif (TermState::Noise === $v->verdict) {
                $findings[] = new Finding(
                    FindingKind::Verdict,
                    Weight::Wrong,
                    Fact::of(FindingCode::DCarriesNoise, axis: $axis, pct: 100 * $v->share),
                    round($v->share, 3),
                    FindingUnit::ShareOfFlight,
                    Fact::of(Certainty::Firm),
                    Fact::of(Remedy::LowerDCutoff),
                    axis: $axis,
                    passage: $passage,
                    setting: 'd_path.stage.1.cutoff_hz',
                );
            }
        }

        return $findings;
    }

    /**
     * @param list<Ridge> $ridges
     * @param bool        $isTracked whether tracking notches were on already
     *
     * @return list<Finding>
     */
    private static function ridges(array $ridges, bool $isTracked): array
    {
        $findings = [];
        foreach ($ridges as $ridge) {
            if (RidgeKind::Standing === $ridge->kind && $ridge->db > self::STRONG_DB) {
                $findings[] = new Finding(
                    FindingKind::Ridge,
                    Weight::Mind,
                    Fact::of(
                        FindingCode::StandingRidge,
                        axis: $ridge->axis,
                        hz: $ridge->hz,
                        from_pct: $ridge->fromPct,
                        to_pct: $ridge->toPct,
                    ),
                    round($ridge->hz, 2),
                    FindingUnit::Hertz,
                    Fact::of(Certainty::Firm),
                    Fact::of($isTracked ? Remedy::FeelTheFrameOnly : Remedy::FeelTheFrame),
                    axis: $ridge->axis,
                    setting: $isTracked ? null : 'notch.tracking.peaks',
                );
            }
        }

        return $findings;
    }

    /**
     * Loops that ring where a ridge stands, of which P's own trace does not yet tell.
     *
     * @param list<Ridge>                $ridges
     * @param array<string, TermVerdict> $verdicts by axis
     *
     * @return list<Finding>
     */
    private static function swings(array $ridges, array $verdicts): array
    {
        $findings = [];
        foreach ($ridges as $ridge) {
            $axis = $ridge->axis->value;
            $told = TermState::Oscillation === ($verdicts[$axis] ?? null)?->verdict;
            if (RidgeKind::OwnSwing !== $ridge->kind || $ridge->db <= self::STRONG_DB || $told || isset($findings[$axis])) {
                continue;
            }
            $findings[$axis] = new Finding(
                FindingKind::Verdict,
                Weight::Mind,
                Fact::of(FindingCode::LoopSwings, axis: $ridge->axis, hz: $ridge->hz),
                round($ridge->hz, 2),
                FindingUnit::Hertz,
                Fact::of(Certainty::Likely),
                Fact::of(Remedy::SteadyLoop),
                axis: $ridge->axis,
                setting: "gain.$axis.p",
            );
        }

        return array_values($findings);
    }

    /**
     * A magnet count that the climbing line gives away: in truth it comes once a revolution, so its order of the logged speed is
     * the count that is set over the true one.
     *
     * @param int             $known as set; 0 where the log does not say
     * @param list<OrderLine> $lines
     *
     * @return list<Finding>
     */
    private static function magnets(int $known, array $lines): array
    {
        $orders = [];
        foreach ($lines as $line) {
            if (abs($line->order - 1) < self::NEAR_ORDER) {
                $orders[$line->axis->value] ??= $line->order;
            }
        }
        // One axis may have caught another line; two that agree have not.
        if (\count($orders) < 2 || max($orders) - min($orders) > self::AGREE) {
            return [];
        }
        $order = array_sum($orders) / \count($orders);
        $pairs = $known > 0
            ? array_map(static fn (int $true): array => [$known, $true], range(self::LEAST_MAGNETS, self::MOST_MAGNETS, 2))
            : [[14, 12], [12, 14]];
        foreach ($pairs as [$set, $true]) {
            if ($set !== $true && abs($order - $set / $true) < self::ORDER_FITS && abs($order - 1) > self::ORDER_OFF) {
                return [
                    new Finding(
                        FindingKind::Magnets,
                        Weight::Wrong,
                        Fact::of(FindingCode::WrongMagnets, order: $order, set: $set, is: $true),
                        round($order, 3),
                        FindingUnit::PerRevolution,
                        Fact::of($known > 0 ? Certainty::Firm : Certainty::Fair),
                        Fact::of(Remedy::SetMagnets, magnets: $true),
                        [round(min($orders), 3), round(max($orders), 3)],
                        setting: 'motors.rotor_magnets',
                    ),
                ];
            }
        }

        return [];
    }

    /**
     * @param array<string, AxisLag> $lags by axis
     *
     * @return list<Finding>
     */
    private static function lags(array $lags): array
    {
        $findings = [];
        foreach ($lags as $name => $lag) {
            $axis = Axis::from($name);
            [$what, $try] = match (true) {
                $lag->ms < -self::LEAD_MS => [
                    Fact::of(FindingCode::Leads, axis: $axis, ms: -$lag->ms),
                    Fact::of(Remedy::LowerFeedForward),
                ],
                $lag->ms > self::MUCH_LAG_MS && $lag->iqrMs < $lag->ms => [
                    Fact::of(FindingCode::Lags, axis: $axis, ms: $lag->ms),
                    Fact::of(Remedy::RaiseFeedForward),
                ],
                default => [null, null],
            };
            if (null !== $what) {
                $findings[] = new Finding(
                    FindingKind::Lag,
                    Weight::Mind,
                    $what,
                    round($lag->ms, 2),
                    FindingUnit::Millisecond,
                    Fact::of(Certainty::Firm),
                    $try,
                    [round($lag->ms - $lag->halfWidthMs(), 2), round($lag->ms + $lag->halfWidthMs(), 2)],
                    $axis,
                    setting: "gain.$name.ff",
                );
            }
        }

        return $findings;
    }

    /** @return list<Finding> */
    private static function ofDamage(FlightLog $log): array
    {
        $findings = [];
        $last = $log->badRows->places[\count($log->badRows->places) - 1] ?? null;
        $breaksOff = true === $last?->reason->is(BadRowReason::BreaksOff);
        $unreadable = $log->badRows->count - ($breaksOff ? 1 : 0);
        if ($breaksOff) {
            $findings[] = new Finding(
                FindingKind::Damage,
                Weight::Wrong,
                Fact::of(FindingCode::BreaksOff, at_s: $log->clock->durationS()),
                round($log->clock->durationS(), 3),
                FindingUnit::Second,
                Fact::of(Certainty::Firm),
                Fact::of(Remedy::FetchAgain),
            );
        }
        if ($unreadable > 0) {
            $findings[] = new Finding(
                FindingKind::Damage,
                Weight::Mind,
                Fact::of(FindingCode::RowsUnreadable, rows: $unreadable),
                (float) $unreadable,
                FindingUnit::Rows,
                Fact::of(Certainty::Firm),
                Fact::of(Remedy::LookAtRecorder),
            );
        }
        $gaps = $log->clock->gaps();
        if ([] !== $gaps) {
            $findings[] = new Finding(
                FindingKind::Gaps,
                Weight::Mind,
                Fact::of(FindingCode::GapsInLog, gaps: \count($gaps)),
                (float) \count($gaps),
                FindingUnit::Gaps,
                Fact::of(Certainty::Firm),
                Fact::of(Remedy::SlowerRecorder),
                passage: [round($gaps[0]->atS, 3), round($gaps[0]->atS + $gaps[0]->lengthS, 3)],
            );
        }

        return $findings;
    }
}
