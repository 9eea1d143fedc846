<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/** Gathers the judgements of all analyses on one log, gravest first. */
final readonly class Findings
{
    /** Lag beyond which a command low-pass or feed-forward is worth a look, ms. */
    private const MUCH_LAG_MS = 25.0;

    /** A standing ridge this strong shakes more than the frame should, dB of (deg/s)²/Hz. */
    private const STRONG_DB = 0.0;

    /** @return list<Finding> */
    public static function of(FlightLog $log, FlightAnalysis $a): array
    {
        $findings = [...self::incidents($a), ...self::signs($log), ...self::verdicts($a), ...self::steps($a), ...self::ridges($a), ...self::magnets($log, $a), ...self::lags($log, $a), ...self::log($log)];
        $order = [Finding::WRONG => 0, Finding::MIND => 1, Finding::GOOD => 2];
        usort($findings, static fn (Finding $p, Finding $q): int => $order[$p->weight] <=> $order[$q->weight]);

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

    /** @return list<Finding> rotation that runs against its command */
    private static function signs(FlightLog $log): array
    {
        $findings = [];
        foreach (Traces::AXES as $axis) {
            $rate = $log->has("rate_measured_{$axis}_dps") ? "rate_measured_{$axis}_dps" : "rate_filtered_{$axis}_dps";
            if (!$log->has($rate) || !$log->has("setpoint_{$axis}_dps")) {
                continue;
            }
            $factor = max(1, (int) ($log->clock->rateHz / 100));
            $x = Statistics::means($log->trace("setpoint_{$axis}_dps"), $factor);
            $y = Statistics::means($log->trace($rate), $factor);
            $xy = $xx = $yy = 0.0;
            foreach ($x as $i => $v) {
                $xy += $v * $y[$i];
                $xx += $v * $v;
                $yy += $y[$i] ** 2;
            }
            $r = $xx > 0 && $yy > 0 ? $xy / sqrt($xx * $yy) : 0.0;
            if ($r < -0.5 && sqrt($xx / \count($x)) > 10) {
                $findings[] = new Finding('sign', Finding::WRONG, ucfirst($axis).' runs against its command: in this log its sign is turned.', round($r, 3), 'correlation', null, 'firm', '51', $axis, null, null, 'Bring the log in again with this axis turned about; nothing is said of its response until then.');
            }
        }

        return $findings;
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
        $findings = [];
        foreach ($a->axes as $axis => $report) {
            if (null === $report->step || Belief::NONE === $report->belief->grade) {
                continue;
            }
            $peak = $report->step->numbers['peak'];
            $verdict = StepVerdict::of($peak);
            $interval = $report->step->intervals['peak'] ?? null;
            $findings[] = match ($verdict) {
                StepVerdict::OVERSHOOTS => new Finding('step', Finding::MIND, \sprintf('%s overshoots a step by %.0f %%.', ucfirst($axis), 100 * ($peak - 1)), round($peak, 3), 'of the command', $interval, $report->belief->grade, '54', $axis, null, "gain.$axis.p", 'See the better P and D that 61 proposes.'),
                StepVerdict::FALLS_SHORT => new Finding('step', Finding::MIND, \sprintf('%s stays %.0f %% short of a step.', ucfirst($axis), 100 * (1 - $peak)), round($peak, 3), 'of the command', $interval, $report->belief->grade, '54', $axis, null, "gain.$axis.p", 'Raise P by a tenth, and fly it again.'),
                default => new Finding('step', Finding::GOOD, \sprintf('%s answers a step cleanly, half there in %.1f ms.', ucfirst($axis), $report->step->numbers['delay_ms']), round($peak, 3), 'of the command', $interval, $report->belief->grade, '54', $axis, null, null, ''),
            };
        }

        return $findings;
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

    /** @return list<Finding> a pole count that the climbing ridge gives away */
    private static function magnets(FlightLog $log, FlightAnalysis $a): array
    {
        // A craft short of a motor turns the others faster than its throttle says.
        if ([] === $a->rotorHz || [] !== $a->incidents || !$log->has('throttle_pct')) {
            return [];
        }
        $mean = array_sum($a->rotorHz) / \count($a->rotorHz);
        $throttle = Statistics::mean($log->trace('throttle_pct'));
        $orders = [];
        foreach ($a->ridges as $ridge) {
            if (Ridge::CLIMBING === $ridge->kind && 1 === $ridge->harmonic && $mean > 5 && $ridge->fromPct <= $throttle && $ridge->toPct >= $throttle) {
                $orders[] = $ridge->hzAt($throttle) / $mean;
            }
        }
        // One axis may have caught another line; two that agree have not.
        if (\count($orders) < 2 || max($orders) - min($orders) > 0.04) {
            return [];
        }
        $order = array_sum($orders) / \count($orders);
        foreach ([[14, 12], [12, 14]] as [$set, $true]) {
            if (abs($order - $set / $true) < 0.035) {
                return [new Finding('magnets', Finding::WRONG, \sprintf('The climbing ridge is at %.2f of the logged rotor speed: the rotor magnets are set to %d, and are %d.', $order, $set, $true), round($order, 3), 'of the rotor speed', null, 'fair', '53', null, null, 'motors.rotor_magnets', "Set $true, and check on sheet 15.")];
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
            $findings[] = new Finding('damage', Finding::MIND, "{$log->badRows->count} rows could not be read; what could be is here.", (float) $log->badRows->count, 'rows', null, 'firm', '52', null, null, null, 'Look at the recorder and its wire.');
        }
        $gaps = $log->clock->gaps();
        if ([] !== $gaps) {
            $findings[] = new Finding('gaps', Finding::MIND, \count($gaps).(1 === \count($gaps) ? ' gap' : ' gaps').' in the log; no analysis looks across one.', (float) \count($gaps), 'gaps', null, 'firm', '52', null, [round($gaps[0]->atS, 3), round($gaps[0]->atS + $gaps[0]->lengthS, 3)], null, 'A slower recorder rate may help.');
        }

        return $findings;
    }
}
