<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\Signal\Peak;

/** The analysis as plain data, stable for other programs (docs/computation.md). */
final readonly class AnalysisReport
{
    /**
     * @return array{log: array<string, mixed>, step: array<string, array<string, mixed>>, spectrum: array<string, array<string, mixed>>, lag: array<string, array<string, mixed>>, noise: array<string, mixed>, verdicts: array<string, array<string, mixed>>, incidents: list<array<string, mixed>>, signs: list<array<string, mixed>>, adequacy: array<string, mixed>, findings: list<array<string, mixed>>}
     */
    public static function of(FlightLog $log, FlightAnalysis $analysis): array
    {
        $step = $spectrum = [];
        foreach ($analysis->axes as $axis => $report) {
            $step[$axis] = self::step($report);
            $spectrum[$axis] = ['measured' => self::spectrum($report->measured), 'filtered' => self::spectrum($report->filtered)];
        }

        return [
            'log' => [
                'duration_s' => round($log->clock->durationS(), 6),
                'sample_rate_hz' => round($log->clock->rateHz, 3),
                'samples' => $log->clock->samples,
                'gaps' => array_map(static fn (TimeFault $g): array => ['at_s' => round($g->atS, 6), 'length_s' => round($g->lengthS, 6)], $log->clock->gaps()),
                'time_faults' => \count(array_filter($log->clock->faults, static fn (TimeFault $f): bool => 'back' === $f->kind || 'repeat' === $f->kind)),
                'bad_rows' => $log->badRows->count,
                'bad_places' => $log->badRows->places,
                'traces' => $log->names(),
                'columns_left_out' => $log->leftOut,
            ],
            'step' => $step,
            'spectrum' => $spectrum,
            'lag' => array_map(static fn (AxisLag $l): array => ['ms' => round($l->ms, 3), 'iqr_ms' => round($l->iqrMs, 3), 'windows' => $l->windows], $analysis->lags),
            'noise' => [
                'ridges' => array_map(static fn (Ridge $r): array => [
                    'kind' => $r->kind, 'axis' => $r->axis, 'hz_at_zero' => round($r->hzAtZero, 3), 'hz_per_pct' => round($r->hzPerPct, 4), 'hz' => round($r->hz, 2), 'harmonic' => $r->harmonic, 'db' => round($r->db, 2),
                    'from_pct' => $r->fromPct, 'to_pct' => $r->toPct,
                ], $analysis->ridges),
                'orders' => array_map(static fn (OrderLine $o): array => ['axis' => $o->axis, 'order' => round($o->order, 3), 'db' => round($o->db, 2), 'from_rpm' => round($o->fromRpm), 'to_rpm' => round($o->toRpm)], $analysis->orders),
                'residual_dps' => array_map(static fn (AxisReport $r): ?float => null === ($r->filtered ?? $r->measured) ? null : round(($r->filtered ?? $r->measured)->rmsDps, 4), $analysis->axes),
            ],
            'verdicts' => array_map(static fn (Verdict $v): array => ['verdict' => $v->verdict, 'hz' => null === $v->hz ? null : round($v->hz, 3), 'share' => round($v->share, 4), 'worst_at_s' => null === $v->worstAtS ? null : round($v->worstAtS, 3)], $analysis->verdicts),
            'incidents' => array_map(static fn (Incident $i): array => [
                'at_s' => round($i->atS, 4), 'end_s' => round($i->endS, 4), 'place' => $i->place, 'margin' => $i->margin, 'causes' => $i->causes, 'ranked' => $i->ranked, 'timeline' => $i->timeline,
                'rotation_dps2' => $i->rotation, 'against' => $i->against, 'evidence' => $i->evidence,
            ], $analysis->incidents),
            'signs' => array_values(array_map(static fn (SignCheck $s): array => ['axis' => $s->axis, 'what' => $s->what, 'turn' => $s->turn], array_filter($analysis->signs, static fn (SignCheck $s): bool => [] !== $s->turn))),
            'adequacy' => $analysis->adequacy->toArray(),
            'findings' => array_map(static fn (Finding $f): array => $f->toArray(), Findings::of($log, $analysis)),
        ];
    }

    /**
     * The same report with one axis' step taken from another reckoning of the same log.
     *
     * @param array<mixed> $report as of() gave it, perhaps kept as JSON since
     *
     * @return array<mixed>
     */
    public static function withStep(array $report, AxisReport $axis): array
    {
        $steps = $report['step'] ?? [];
        $findings = $report['findings'] ?? [];
        $of = static fn (mixed $f): bool => \is_array($f) && 'step' === ($f['key'] ?? '') && \is_array($f['evidence'] ?? null) && $axis->axis === ($f['evidence']['axis'] ?? '');
        $kept = array_values(array_filter(\is_array($findings) ? $findings : [], static fn (mixed $f): bool => !$of($f)));
        $report['step'] = [$axis->axis => self::step($axis)] + (\is_array($steps) ? $steps : []);
        $report['findings'] = Findings::sorted([...$kept, ...array_map(static fn (Finding $f): array => $f->toArray(), Findings::ofStep($axis))]);

        return $report;
    }

    /** @return array<string, mixed> */
    private static function step(AxisReport $report): array
    {
        $s = $report->step;
        $round = static fn (?float $v, int $digits): ?float => null === $v ? null : round($v, $digits);
        $intervals = [];
        foreach ($s->intervals ?? [] as $key => [$low, $high]) {
            $intervals[$key] = [round($low, 4), round($high, 4)];
        }

        return [
            'delay_ms' => $round($s?->numbers['delay_ms'], 3),
            'rise_ms' => $round($s?->numbers['rise_ms'], 3),
            'peak' => $round($s?->numbers['peak'], 4),
            'peak_ms' => $round($s?->numbers['peak_ms'], 3),
            'settling_ms' => $round($s?->numbers['settling_ms'], 3),
            'steady' => $round($s?->numbers['steady'], 4),
            'error_ms' => $round($s?->numbers['error_ms'], 3),
            'intervals' => $intervals,
            'windows_used' => $s->used ?? 0,
            'windows_rejected' => array_filter($s->rejected ?? []),
            'by_size' => array_map(static fn (array $b): array => ['windows' => $b['windows'], 'peak' => $round($b['peak'], 4), 'delay_ms' => $round($b['delay_ms'], 3), 'upto_dps' => $round($b['upto_dps'], 1)], $s->bySize ?? []),
            'linear' => $s?->isLinear(),
            'band_hz' => $round($s?->bandHz, 1),
            'grade' => $report->belief->grade,
            'reasons' => $report->belief->reasons,
            'fly_instead' => $report->belief->flyInstead,
        ];
    }

    /** @return array<string, mixed>|null */
    private static function spectrum(?AxisSpectrum $s): ?array
    {
        return null === $s ? null : [
            'rms_dps' => round($s->rmsDps, 4),
            'peaks' => array_map(static fn (Peak $p): array => ['hz' => round($p->hz, 2), 'db' => round($p->db, 2)], $s->peaks),
        ];
    }
}
