<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\Words\Words;
use Ortholex\Core\FlightLog\BadStretch;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Incident\IncidentEvent;
use Ortholex\Core\Incident\MotorFit;
use Ortholex\Core\LogCheck\SignCheck;
use Ortholex\Core\Noise\OrderLine;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Report\StepReport;
use Ortholex\Core\Step\Exclusion;
use Ortholex\Core\Step\StepOfSize;
use Ortholex\Core\Tuning\TermVerdict;

/** A report as other programs read it (docs/computation.md): figures and words, stable from version to version. */
final readonly class ReportJson
{
    public function __construct(private Words $words, private SheetsOfFindings $sheets)
    {
    }

    /** @return array<string, mixed> */
    public function of(Report $report): array
    {
        $spectrum = [];
        foreach (array_keys($report->steps) as $axis) {
            $spectrum[$axis] = [
                'measured' => $report->measured[$axis]?->toArray(),
                'filtered' => $report->filtered[$axis]?->toArray(),
            ];
        }

        return [
            'log' => $this->log($report),
            'step' => array_map($this->step(...), $report->steps),
            'spectrum' => $spectrum,
            'lag' => array_map(static fn (\Ortholex\Core\Lag\AxisLag $l): array => $l->toArray(), $report->lags),
            'noise' => [
                'ridges' => array_map(
                    fn (Ridge $r): array => ['kind' => $this->words->of($r->kind)] + $r->toArray(),
                    $report->ridges,
                ),
                'orders' => array_map(static fn (OrderLine $o): array => $o->toArray(), $report->orders),
                'residual_dps' => $report->residual,
            ],
            'verdicts' => array_map($this->verdict(...), $report->verdicts),
            'incidents' => array_map($this->incident(...), $report->incidents),
            'signs' => array_map($this->sign(...), $report->signs),
            'adequacy' => [
                ...$report->adequacy->toArray(),
                'can' => $this->words->all($report->adequacy->can),
                'cannot' => $this->words->all($report->adequacy->cannot),
            ],
            'findings' => array_map($this->finding(...), $report->findings),
        ];
    }

    /** @return list<array<string, mixed>> what each column was taken for, and why */
    public function columns(LogPlan $plan): array
    {
        $columns = [];
        foreach ($plan->guesses as $g) {
            $unit = null === $g->trace ? null : $plan->units[$g->trace] ?? null;
            $columns[] = [
                'column' => $g->name,
                'trace' => $g->trace,
                'factor' => $unit?->scale,
                'unit' => $unit?->unit,
                'sure' => null !== $g->trace && $g->isSure(),
                'why' => null === $unit ? 'its name says none of our traces' : $this->words->of($unit->why),
            ];
        }

        return $columns;
    }

    /** @return array<string, mixed> */
    public function finding(Finding $f): array
    {
        return [
            'key' => $f->kind->value,
            'weight' => $f->weight->value,
            'what' => $this->words->of($f->what),
            'number' => $f->number,
            'unit' => $this->words->of($f->unit),
            'interval' => $f->interval,
            'confidence' => $this->words->of($f->sure),
            'evidence' => ['sheet' => $this->sheets->showing($f), 'axis' => $f->axis?->value, 'passage' => $f->passage],
            'setting' => $f->setting,
            'try' => null === $f->try ? '' : $this->words->of($f->try),
        ];
    }

    /** @return array<string, mixed> */
    private function log(Report $report): array
    {
        $places = array_map(
            fn (BadStretch $s): array => ['line' => $s->line, 'count' => $s->count, 'reason' => $this->words->of($s->reason)],
            $report->log->badRows->places,
        );
        $out = [];
        foreach ($report->log->toArray() as $key => $value) {
            $out += 'bad_rows' === $key ? ['bad_rows' => $report->log->badRows->count, 'bad_places' => $places] : [$key => $value];
        }

        return $out;
    }

    /** @return array<string, mixed> */
    private function step(StepReport $s): array
    {
        $excluded = [];
        foreach ($s->excluded as $why => $windows) {
            $excluded[$this->words->of(Exclusion::from($why))] = $windows;
        }
        $none = ['delay_ms', 'rise_ms', 'peak', 'peak_ms', 'settling_ms', 'steady', 'error_ms'];

        return [
            ...$s->numbers?->toArray() ?? array_fill_keys($none, null),
            'intervals' => $s->intervals,
            'windows_used' => $s->used,
            'windows_rejected' => $excluded,
            'by_size' => array_map(static fn (StepOfSize $b): array => $b->toArray(), $s->bySize),
            'linear' => $s->linear,
            'band_hz' => $s->bandHz,
            'grade' => $s->confidence->grade->value,
            'reasons' => $this->words->all($s->confidence->reasons),
            'fly_instead' => null === $s->confidence->flyInstead ? '' : $this->words->of($s->confidence->flyInstead),
        ];
    }

    /** @return array<string, mixed> */
    private function verdict(TermVerdict $v): array
    {
        return ['verdict' => $this->words->of($v->verdict), 'hz' => $v->hz, 'share' => $v->share, 'worst_at_s' => $v->worstAtS];
    }

    /** @return array<string, mixed> */
    private function incident(Incident $i): array
    {
        return [
            'at_s' => $i->atS,
            'end_s' => $i->endS,
            'kind' => $i->kind->word(),
            'what' => $this->words->of($i->kind),
            'place' => $i->place,
            'margin' => $i->margin,
            'causes' => $this->words->all($i->causes()),
            'ranked' => array_map(static fn (MotorFit $f): array => $f->toArray(), $i->ranked),
            'timeline' => array_map(
                fn (IncidentEvent $e): array => ['at_s' => $e->atS, 'what' => $this->words->of($e->what)],
                $i->timeline,
            ),
            'rotation_dps2' => $i->rotation,
            'against' => $this->words->all($i->against),
            'evidence' => $this->words->of($i->evidence),
            'speed' => $i->speed?->toArray(),
        ];
    }

    /** @return array<string, mixed> */
    private function sign(SignCheck $s): array
    {
        return [
            'axis' => $s->axis->value,
            'what' => null === $s->fact() ? '' : $this->words->of($s->fact()),
            'turn' => $s->turn,
        ];
    }
}
