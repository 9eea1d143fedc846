<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Incident\Saying\Cause;
use Ortholex\Core\LogCheck\SignCode;

/** A judgement on a log: what, with which number and interval, where it can be seen, the setting behind it, and what to try. */
final readonly class Finding
{
    /**
     * @param Fact                     $what     of FindingCode or SignCode
     * @param array{float, float}|null $interval of the number
     * @param Fact                     $sure     of Certainty
     * @param array{float, float}|null $passage  from and to, s
     * @param string|null              $setting  name of the setting behind it
     * @param Fact|null                $try      of Remedy
     */
    public function __construct(
        public FindingKind $kind,
        public Weight $weight,
        public Fact $what,
        public ?float $number,
        public FindingUnit $unit,
        public Fact $sure,
        public ?Fact $try = null,
        public ?array $interval = null,
        public ?Axis $axis = null,
        public ?array $passage = null,
        public ?string $setting = null,
    ) {
    }

    /**
     * @param list<self> $findings
     *
     * @return list<self> gravest first
     */
    public static function sorted(array $findings): array
    {
        usort($findings, static fn (self $p, self $q): int => $p->weight->rank() <=> $q->weight->rank());

        return $findings;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind->value,
            'weight' => $this->weight->value,
            'what' => $this->what->toArray(),
            'number' => $this->number,
            'unit' => $this->unit->value,
            'sure' => $this->sure->toArray(),
            'try' => $this->try?->toArray(),
            'interval' => $this->interval,
            'axis' => $this->axis?->value,
            'passage' => $this->passage,
            'setting' => $this->setting,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $try = $data->optionalPart('try');

        return new self(
            $data->choice('kind', FindingKind::class),
            $data->choice('weight', Weight::class),
            Fact::fromArray($data->part('what'), FindingCode::class, SignCode::class),
            $data->optional('number'),
            $data->choice('unit', FindingUnit::class),
            Fact::fromArray($data->part('sure'), Certainty::class),
            null === $try ? null : Fact::fromArray($try, Remedy::class, Cause::class),
            $data->pair('interval'),
            $data->has('axis') ? $data->choice('axis', Axis::class) : null,
            $data->pair('passage'),
            $data->optionalText('setting'),
        );
    }
}
