<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\LogCheck\Adequacy;
use Ortholex\Core\LogCheck\SignCheck;
use Ortholex\Core\Noise\OrderLine;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\FindingKind;
use Ortholex\Core\Report\Finding\Findings;
use Ortholex\Core\Tuning\TermVerdict;

/** All that an analysis says of a log, to the digits that are kept and shown; codes and figures, no words. */
final readonly class Report
{
    /**
     * @param array<string, StepReport>          $steps    by axis
     * @param array<string, SpectrumReport|null> $measured by axis; null where the rate was not logged
     * @param array<string, SpectrumReport|null> $filtered by axis
     * @param array<string, AxisLag>             $lags     by axis, of those that tell
     * @param list<Ridge>                        $ridges
     * @param list<OrderLine>                    $orders
     * @param array<string, float|null>          $residual noise above 20 Hz after filtering by axis, deg/s
     * @param array<string, TermVerdict>         $verdicts by axis
     * @param list<Incident>                     $incidents
     * @param list<SignCheck>                    $signs    of axes that are turned
     * @param list<Finding>                      $findings gravest first
     */
    private function __construct(
        public LogSummary $log,
        public array $steps,
        public array $measured,
        public array $filtered,
        public array $lags,
        public array $ridges,
        public array $orders,
        public array $residual,
        public array $verdicts,
        public array $incidents,
        public array $signs,
        public Adequacy $adequacy,
        public array $findings,
    ) {
    }

    public static function of(FlightLog $log, FlightAnalysis $analysis): self
    {
        return new self(
            LogSummary::of($log),
            array_map(StepReport::of(...), $analysis->axes),
            array_map(static fn (AxisReport $r): ?SpectrumReport => SpectrumReport::of($r->measured), $analysis->axes),
            array_map(static fn (AxisReport $r): ?SpectrumReport => SpectrumReport::of($r->filtered), $analysis->axes),
            array_map(static fn (AxisLag $l): AxisLag => $l->rounded(), $analysis->lags),
            array_map(static fn (Ridge $r): Ridge => $r->rounded(), $analysis->ridges),
            array_map(static fn (OrderLine $o): OrderLine => $o->rounded(), $analysis->orders),
            array_map(
                static fn (AxisReport $r): ?float => null === ($r->filtered ?? $r->measured)
                    ? null
                    : round(($r->filtered ?? $r->measured)->rmsDps, 4),
                $analysis->axes,
            ),
            array_map(static fn (TermVerdict $v): TermVerdict => $v->rounded(), $analysis->verdicts),
            array_map(static fn (Incident $i): Incident => $i->rounded(), $analysis->incidents),
            array_values(array_filter($analysis->signs, static fn (SignCheck $s): bool => [] !== $s->turn)),
            $analysis->adequacy,
            Findings::of($log, $analysis),
        );
    }

    /** The same with one axis' step taken from another reckoning of the same log. */
    public function withStep(AxisReport $axis): self
    {
        $kept = array_filter($this->findings, static fn (Finding $f): bool => FindingKind::Step !== $f->kind || $axis->axis !== $f->axis);

        return new self(
            $this->log,
            [$axis->axis->value => StepReport::of($axis)] + $this->steps,
            $this->measured,
            $this->filtered,
            $this->lags,
            $this->ridges,
            $this->orders,
            $this->residual,
            $this->verdicts,
            $this->incidents,
            $this->signs,
            $this->adequacy,
            Finding::sorted([...array_values($kept), ...Findings::ofStep($axis)]),
        );
    }

    public function step(Axis $axis): ?StepReport
    {
        return $this->steps[$axis->value] ?? null;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $plain = static fn (
            StepReport|SpectrumReport|AxisLag|Ridge|OrderLine|TermVerdict|Incident|SignCheck|Finding|null $one,
        ): ?array => $one?->toArray();

        return [
            'log' => $this->log->toArray(),
            'step' => array_map($plain, $this->steps),
            'measured' => array_map($plain, $this->measured),
            'filtered' => array_map($plain, $this->filtered),
            'lag' => array_map($plain, $this->lags),
            'ridges' => array_map($plain, $this->ridges),
            'orders' => array_map($plain, $this->orders),
            'residual_dps' => $this->residual,
            'verdicts' => array_map($plain, $this->verdicts),
            'incidents' => array_map($plain, $this->incidents),
            'signs' => array_map($plain, $this->signs),
            'adequacy' => $this->adequacy->toArray(),
            'findings' => array_map($plain, $this->findings),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $measured = $filtered = $residual = [];
        foreach (Axis::cases() as $axis) {
            $measured[$axis->value] = SpectrumReport::fromArray($data->part('measured')->optionalPart($axis->value));
            $filtered[$axis->value] = SpectrumReport::fromArray($data->part('filtered')->optionalPart($axis->value));
            $residual[$axis->value] = $data->part('residual_dps')->optional($axis->value);
        }

        return new self(
            LogSummary::fromArray($data->part('log')),
            array_map(StepReport::fromArray(...), $data->parts('step')),
            $measured,
            $filtered,
            array_map(AxisLag::fromArray(...), $data->parts('lag')),
            array_map(Ridge::fromArray(...), $data->rows('ridges')),
            array_map(OrderLine::fromArray(...), $data->rows('orders')),
            $residual,
            array_map(TermVerdict::fromArray(...), $data->parts('verdicts')),
            array_map(Incident::fromArray(...), $data->rows('incidents')),
            array_map(SignCheck::fromArray(...), $data->rows('signs')),
            Adequacy::fromArray($data->part('adequacy')),
            array_map(Finding::fromArray(...), $data->rows('findings')),
        );
    }
}
