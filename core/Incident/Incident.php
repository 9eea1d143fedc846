<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Incident\Motion\Unexplained;
use Ortholex\Core\Incident\Saying\Cause;
use Ortholex\Core\Incident\Saying\Contradiction;
use Ortholex\Core\Incident\Saying\Evidence;
use Ortholex\Core\Incident\Saying\Kind;

/** A moment when the craft did what nobody asked for, in the order of cause and effect. */
final readonly class Incident
{
    /** What is unexplained is told over this from the onset on. */
    private const LOOKED_AT_S = 0.13;

    /**
     * @param float                       $atS      the earliest sign
     * @param float                       $endS     the last
     * @param string|null                 $place    whose motor stopped pushing; null when the log does not tell
     * @param float                       $margin   how far the first place is ahead of the second, 0 to 2; the first is 1
     * @param list<MotorFit>              $ranked   best first
     * @param list<IncidentEvent>         $timeline in order of time
     * @param array{float, float, float}  $rotation unexplained angular acceleration: roll, pitch, yaw, deg/s²
     * @param list<Fact>                  $against  what contradicts it, of Contradiction
     * @param SpeedTrace|null             $speed    of the motor named, where it was logged
     */
    public function __construct(
        public float $atS,
        public float $endS,
        public ?string $place,
        public float $margin,
        public array $ranked,
        public array $timeline,
        public array $rotation,
        public array $against,
        public Evidence $evidence,
        public Kind $kind,
        public ?SpeedTrace $speed = null,
    ) {
    }

    /** @param list<string> $places of the motors */
    public static function ofLoss(Suspicion $s, array $places, ?Unexplained $off): self
    {
        $most = max([1e-9, ...$s->scores]);
        $ranked = [];
        foreach ($s->scores as $m => $score) {
            $ranked[] = new MotorFit($places[$m], round(max(-1.0, $score / $most), 3));
        }
        usort($ranked, static fn (MotorFit $p, MotorFit $q): int => $q->fit <=> $p->fit);
        $lost = null === $s->motor ? null : $places[$s->motor];
        $against = [];
        if (null !== $s->motor && !$s->bySpeed && $s->run->hasRpm($s->motor)) {
            $against[] = Fact::of(Contradiction::SpeedAsUsual, place: (string) $lost);
        }

        return new self(
            $s->run->timeAt($s->from),
            $s->run->timeAt($s->to),
            $lost,
            [] === $ranked ? 0.0 : round($ranked[0]->fit - ($ranked[1]->fit ?? 0.0), 3),
            \array_slice($ranked, 0, 8),
            Timeline::of($s->run, $s->from, $s->to, $places, $lost),
            null === $off ? [0.0, 0.0, 0.0] : $off->meanOver($s->from, self::LOOKED_AT_S),
            $against,
            $s->bySpeed ? Evidence::RpmFell : Evidence::UnexplainedRotation,
            $s->share < 0.25 ? Kind::MotorLost : Kind::MotorWeak,
            null === $s->motor ? null : SpeedTrace::around($s->run, $off?->model->law, $s->motor, $s->from),
        );
    }

    /** @param list<string> $places of the motors */
    public static function ofRotation(Suspicion $s, Kind $kind, array $places, ?Unexplained $off = null): self
    {
        return new self(
            $s->run->timeAt($s->from),
            $s->run->timeAt($s->to),
            null,
            0.0,
            [],
            Timeline::of($s->run, $s->from, $s->to, $places, null),
            null === $off ? [0.0, 0.0, 0.0] : $off->meanOver($s->from, self::LOOKED_AT_S),
            Kind::CannotTell === $kind ? [Fact::of(Contradiction::NoMotorFits)] : [],
            Evidence::UnexplainedRotation,
            $kind,
        );
    }

    /** @return list<Cause> what to look at, likeliest first; none where no motor is named */
    public function causes(): array
    {
        return null === $this->place ? [] : Cause::cases();
    }

    /** To the digits that a report carries. */
    public function rounded(): self
    {
        return new self(
            round($this->atS, 4),
            round($this->endS, 4),
            $this->place,
            $this->margin,
            $this->ranked,
            $this->timeline,
            $this->rotation,
            $this->against,
            $this->evidence,
            $this->kind,
            $this->speed,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'at_s' => $this->atS,
            'end_s' => $this->endS,
            'place' => $this->place,
            'margin' => $this->margin,
            'ranked' => array_map(static fn (MotorFit $f): array => $f->toArray(), $this->ranked),
            'timeline' => array_map(static fn (IncidentEvent $e): array => $e->toArray(), $this->timeline),
            'rotation_dps2' => $this->rotation,
            'against' => array_map(static fn (Fact $f): array => $f->toArray(), $this->against),
            'evidence' => $this->evidence->value,
            'kind' => $this->kind->value,
            'speed' => $this->speed?->toArray(),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $rotation = $data->numbers('rotation_dps2');

        return new self(
            $data->number('at_s'),
            $data->number('end_s'),
            $data->optionalText('place'),
            $data->number('margin'),
            array_map(MotorFit::fromArray(...), $data->rows('ranked')),
            array_map(IncidentEvent::fromArray(...), $data->rows('timeline')),
            [$rotation[0] ?? 0.0, $rotation[1] ?? 0.0, $rotation[2] ?? 0.0],
            array_map(static fn (Stored $f): Fact => Fact::fromArray($f, Contradiction::class), $data->rows('against')),
            $data->choice('evidence', Evidence::class),
            $data->choice('kind', Kind::class),
            null === ($speed = $data->optionalPart('speed')) ? null : SpeedTrace::fromArray($speed),
        );
    }
}
