<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Incident\Saying\Cause;
use Ortholex\Core\Incident\Saying\Contradiction;
use Ortholex\Core\Incident\Saying\Evidence;

/** A moment when the craft did what nobody asked for, in the order of cause and effect. */
final readonly class Incident
{
    /**
     * @param float                       $atS      the earliest sign
     * @param float                       $endS     the last
     * @param string|null                 $place    whose motor stopped pushing; null when the log does not tell
     * @param float                       $margin   fit of the first place over the second, 0 to 2
     * @param list<MotorFit>              $ranked   best first
     * @param list<IncidentEvent>         $timeline in order of time
     * @param array{float, float, float}  $rotation unexplained angular acceleration: roll, pitch, yaw, deg/s²
     * @param list<Fact>                  $against  what contradicts it, of Contradiction
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
    ) {
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
        );
    }
}
