<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;

/** Gathers the judgements of all analyses on one log, gravest first. */
final readonly class Findings
{
    /** Lag beyond which a command low-pass or feed-forward is worth a look, ms. */
    private const MUCH_LAG_MS = 25.0;

    /** A standing ridge this strong shakes more than the frame should, dB of (deg/s)²/Hz. */
    private const STRONG_DB = 0.0;

    private const ORDER = [Finding::WRONG => 0, Finding::MIND => 1, Finding::GOOD => 2];

    /** @return list<Finding> */
    public static function of(FlightLog $log, FlightAnalysis $a): array
    {
        $findings = [...self::incidents($a), ...self::signs($a), ...self::verdicts($a), ...self::steps($a), ...self::ridges($a), ...self::magnets($log, $a), ...self::lags($log, $a), ...self::log($log)];
        usort($findings, static fn (Finding $p, Finding $q): int => self::ORDER[$p->weight] <=> self::ORDER[$q->weight]);

        return $findings;
    }

    /**
     * @param list<mixed> $findings as plain data
     *
     * @return list<mixed> gravest first
     */
    public static function sorted(array $findings): array
    {
        $rank = static fn (mixed $f): int => self::ORDER[\is_array($f) && \is_string($f['weight'] ?? null) ? $f['weight'] : Finding::GOOD] ?? 3;
        usort($findings, static fn (mixed $p, mixed $q): int => $rank($p) <=> $rank($q));

        return $findings;
    }

    /** @return list<Finding> */
    private static function incidents(FlightAnalysis $a): array
    {
        return array_map(static fn (Incident $i): Finding => new Finding(
            'incident', Finding::WRONG,
            null === $i->place ? \sprintf('At %.2f s it rotated as nobody asked; the log does not tell which motor.', $i->atS) : \sprintf('At %.2f s the %s motor stopped pushing.', $i->atS, str_replace('_', ' ', $i->place)),
            round($i->atS, 3), 's', null, null === $i->place ? 'cannot tell' : \sprintf('margin %.2f', $i->margin), '55', null, [round(max(0.0, $i->atS - 0.5), 3), round($i->endS + 0.5, 3)],
            null === $i->place ? null : "esc.$i->place.sync_loss_response", null === $i->place ? 'Log the rpm, and fly it again gently.' : 'Look at '.implode(', then ', \array_slice($i->causes, 0, 3)).'.',
        ), $a->incidents);
    }

    /** @return list<Finding> axes that the log counts otherwise than we do */
    private static function signs(FlightAnalysis $a): array
    {
        return array_values(array_map(static fn (SignCheck $c): Finding => new Finding(
            'sign', Finding::WRONG, $c->what, round($c->points ?? $c->follows ?? 0.0, 3), null === $c->points ? 'correlation' : 'cosine with the mixer', null, 'firm', '51', $c->axis, null, null, 'Turn it about on the front of the log; until then nothing said of this axis can be relied on.',
        ), array_filter($a->signs, static fn (SignCheck $c): bool => [] !== $c->turn)));
    }

    /** @return list<Finding> */
    private static function verdicts(FlightAnalysis $a): array
    {
        $findings = [];
        foreach ($a->verdicts as $axis => $v) {
            $passage = null === $v->worstAtS ? null : [round($v->worstAtS, 3), round($v->worstAtS + 1, 3)];
            if (Verdict::OSCILLATION === $v->verdict) {
                $findings[] = new Finding('verdict', Finding::WRONG, \sprintf('P of %s swings at %.1f Hz in %.0f %% of the flight.', $axis, $v->hz ?? 0, 100 * $v->share), null === $v->hz ? null : round($v->hz, 2), 'Hz', null, 'firm', '53', $axis, $passage, "gain.$axis.p", 'Lower P by a tenth, or raise D, and fly it again.');
            } elseif (Verdict::NOISE === $v->verdict) {
                $findings[] = new Finding('verdict', Finding::WRONG, \sprintf('D of %s carries noise in %.0f %% of the flight; until that is cured nothing can be said about P.', $axis, 100 * $v->share), round($v->share, 3), 'of the flight', null, 'firm', '53', $axis, $passage, 'd_path.stage.1.cutoff_hz', 'Lower the cutoff of the D path, or look for what shakes.');
            }
        }

        return $findings;
    }

    /** @return list<Finding> */
    private static function steps(FlightAnalysis $a): array
    {
        return array_merge(...array_values(array_map(self::ofStep(...), $a->axes)));
    }

    /** @return list<Finding> one, or none where the axis does not tell */
    public static function ofStep(AxisReport $report): array
    {
        if (null === $report->step || Belief::NONE === $report->belief->grade) {
            return [];
        }
        $axis = $report->axis;
        $peak = $report->step->numbers['peak'];
        $interval = $report->step->intervals['peak'] ?? null;

        return [match (StepVerdict::of($peak)) {
            StepVerdict::OVERSHOOTS => new Finding('step', Finding::MIND, \sprintf('%s overshoots a step by %.0f %%.', ucfirst($axis), 100 * ($peak - 1)), round($peak, 3), 'of the command', $interval, $report->belief->grade, '54', $axis, null, "gain.$axis.p", 'See the better P and D that 61 proposes.'),
            StepVerdict::FALLS_SHORT => new Finding('step', Finding::MIND, \sprintf('%s stays %.0f %% short of a step.', ucfirst($axis), 100 * (1 - $peak)), round($peak, 3), 'of the command', $interval, $report->belief->grade, '54', $axis, null, "gain.$axis.p", 'Raise P by a tenth, and fly it again.'),
            default => new Finding('step', Finding::GOOD, \sprintf('%s answers a step cleanly, half there in %.1f ms.', ucfirst($axis), $report->step->numbers['delay_ms']), round($peak, 3), 'of the command', $interval, $report->belief->grade, '54', $axis, null, null, ''),
        }];
    }

    /** @return list<Finding> */
    private static function ridges(FlightAnalysis $a): array
    {
        $findings = [];
        foreach ($a->ridges as $ridge) {
            if (Ridge::STANDING === $ridge->kind && $ridge->db > self::STRONG_DB) {
                $findings[] = new Finding('ridge', Finding::MIND, \sprintf('%s carries a standing ridge at %.0f Hz, from %.0f to %.0f %% of throttle: a loose or springy part.', ucfirst($ridge->axis), $ridge->hz, $ridge->fromPct, $ridge->toPct), round($ridge->hz, 2), 'Hz', null, 'firm', '53', $ridge->axis, null, 'notch.tracking.count', 'Feel every arm, screw and wire; if it must stay, let a tracking notch follow it.');
            }
        }

        return $findings;
    }

    /**
     * A magnet count that the climbing line gives away: in truth it comes once a revolution, so its order of the logged speed is
     * the count that is set over the true one.
     *
     * @return list<Finding>
     */
    private static function magnets(FlightLog $log, FlightAnalysis $a): array
    {
        $orders = [];
        foreach ($a->orders as $line) {
            if (abs($line->order - 1) < 0.5) {
                $orders[$line->axis] ??= $line->order;
            }
        }
        // One axis may have caught another line; two that agree have not. A craft short of a motor shakes as it will.
        if (\count($orders) < 2 || max($orders) - min($orders) > 0.04 || [] !== $a->incidents) {
            return [];
        }
        $order = array_sum($orders) / \count($orders);
        $known = (int) ($log->setting('motors.rotor_magnets') ?? 0);
        $pairs = $known > 0 ? array_map(static fn (int $true): array => [$known, $true], range(4, 36, 2)) : [[14, 12], [12, 14]];
        foreach ($pairs as [$set, $true]) {
            if ($set !== $true && abs($order - $set / $true) < 0.035 && abs($order - 1) > 0.05) {
                return [new Finding('magnets', Finding::WRONG, \sprintf('The climbing line comes %.2f times per logged revolution: the rotor magnets are set to %d, and are %d.', $order, $set, $true), round($order, 3), 'per revolution', [round(min($orders), 3), round(max($orders), 3)], $known > 0 ? 'firm' : 'fair', '53', null, null, 'motors.rotor_magnets', "Set $true, and check on sheet 15.")];
            }
        }

        return [];
    }

    /** @return list<Finding> */
    private static function lags(FlightLog $log, FlightAnalysis $a): array
    {
        $findings = [];
        foreach ($a->lags as $axis => $lag) {
            if ($lag->ms < -0.5) {
                $findings[] = new Finding('lag', Finding::MIND, \sprintf('%s comes %.1f ms before its command: too much feed-forward.', ucfirst($axis), -$lag->ms), round($lag->ms, 2), 'ms', [round($lag->ms - $lag->iqrMs / 2, 2), round($lag->ms + $lag->iqrMs / 2, 2)], 'firm', '54', $axis, null, "gain.$axis.ff", 'Lower feed-forward by a step.');
            } elseif ($lag->ms > self::MUCH_LAG_MS && $lag->iqrMs < $lag->ms) {
                $findings[] = new Finding('lag', Finding::MIND, \sprintf('%s comes %.1f ms after its command.', ucfirst($axis), $lag->ms), round($lag->ms, 2), 'ms', [round($lag->ms - $lag->iqrMs / 2, 2), round($lag->ms + $lag->iqrMs / 2, 2)], 'firm', '54', $axis, null, "gain.$axis.ff", 'Raise feed-forward in steps (a series), or lighten the command low-pass.');
            }
        }

        return $findings;
    }

    /** @return list<Finding> */
    private static function log(FlightLog $log): array
    {
        $findings = [];
        if ($log->badRows->count > 0) {
            $findings[] = new Finding('damage', Finding::MIND, $log->badRows->count.(1 === $log->badRows->count ? ' row' : ' rows').' could not be read; what could be is here.', (float) $log->badRows->count, 'rows', null, 'firm', '52', null, null, null, 'Look at the recorder and its wire.');
        }
        $gaps = $log->clock->gaps();
        if ([] !== $gaps) {
            $findings[] = new Finding('gaps', Finding::MIND, \count($gaps).(1 === \count($gaps) ? ' gap' : ' gaps').' in the log; no analysis looks across one.', (float) \count($gaps), 'gaps', null, 'firm', '52', null, [round($gaps[0]->atS, 3), round($gaps[0]->atS + $gaps[0]->lengthS, 3)], null, 'A slower recorder rate may help.');
        }

        return $findings;
    }
}
