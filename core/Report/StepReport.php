<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Step\Confidence\Confidence;
use Ortholex\Core\Step\StepNumbers;
use Ortholex\Core\Step\StepOfSize;

/** What a report says of the step response of one axis. */
final readonly class StepReport
{
    /**
     * @param StepNumbers|null                   $numbers   null where the log does not tell
     * @param array<string, array{float, float}> $intervals 90 % of each number, by its key in StepNumbers
     * @param int                                $used      windows
     * @param array<string, int>                 $excluded  windows by Exclusion, of those that have any
     * @param array<string, StepOfSize>          $bySize    small, medium, large
     * @param bool|null                          $linear    whether the sizes agree; null when it cannot be told
     * @param float|null                         $bandHz    up to where the stick excites
     */
    private function __construct(
        public ?StepNumbers $numbers,
        public array $intervals,
        public int $used,
        public array $excluded,
        public array $bySize,
        public ?bool $linear,
        public ?float $bandHz,
        public Confidence $confidence,
    ) {
    }

    public static function of(AxisReport $axis): self
    {
        $step = $axis->step;

        return new self(
            $step?->numbers->rounded(),
            array_map(static fn (array $i): array => [round($i[0], 4), round($i[1], 4)], $step->intervals ?? []),
            $step->used ?? 0,
            array_filter($step->excluded ?? []),
            $step->bySize ?? [],
            $step?->isLinear(),
            null === $step ? null : round($step->bandHz, 1),
            $axis->confidence,
        );
    }

    /** Windows that have no part in it. */
    public function leftOut(): int
    {
        return array_sum($this->excluded);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'numbers' => $this->numbers?->toArray(),
            'intervals' => $this->intervals,
            'used' => $this->used,
            'excluded' => $this->excluded,
            'by_size' => array_map(static fn (StepOfSize $s): array => $s->toArray(), $this->bySize),
            'linear' => $this->linear,
            'band_hz' => $this->bandHz,
            'confidence' => $this->confidence->toArray(),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $numbers = $data->optionalPart('numbers');
        $intervals = $excluded = [];
        foreach (array_keys($data->map('intervals')) as $key) {
            $pair = $data->part('intervals')->numbers((string) $key);
            $intervals[(string) $key] = [$pair[0] ?? 0.0, $pair[1] ?? 0.0];
        }
        foreach (array_keys($data->map('excluded')) as $why) {
            $excluded[(string) $why] = $data->part('excluded')->whole((string) $why);
        }

        return new self(
            null === $numbers ? null : StepNumbers::fromArray($numbers),
            $intervals,
            $data->whole('used'),
            $excluded,
            array_map(StepOfSize::fromArray(...), $data->parts('by_size')),
            $data->flag('linear'),
            $data->optional('band_hz'),
            Confidence::fromArray($data->part('confidence')),
        );
    }
}
