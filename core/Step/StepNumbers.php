<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Fact\Stored;

/** The textbook numbers of a step response; null where the curve does not reach what they are read from. */
final readonly class StepNumbers
{
    /**
     * @param float|null $delayMs    delay time: to half of the steady-state value
     * @param float|null $riseMs     from 10 to 90 %
     * @param float      $peak       of what was asked
     * @param float|null $settlingMs until it stays within 5 %
     * @param float      $steady     steady-state value, 1 for what was asked
     * @param float      $errorMs    integral of the absolute error
     */
    public function __construct(
        public ?float $delayMs,
        public ?float $riseMs,
        public float $peak,
        public float $peakMs,
        public ?float $settlingMs,
        public float $steady,
        public float $errorMs,
    ) {
    }

    /** To the digits that a report carries. */
    public function rounded(): self
    {
        $round = static fn (?float $v): ?float => null === $v ? null : round($v, 3);

        return new self(
            $round($this->delayMs),
            $round($this->riseMs),
            round($this->peak, 4),
            round($this->peakMs, 3),
            $round($this->settlingMs),
            round($this->steady, 4),
            round($this->errorMs, 3),
        );
    }

    /** @return array<string, ?float> */
    public function toArray(): array
    {
        return [
            'delay_ms' => $this->delayMs,
            'rise_ms' => $this->riseMs,
            'peak' => $this->peak,
            'peak_ms' => $this->peakMs,
            'settling_ms' => $this->settlingMs,
            'steady' => $this->steady,
            'error_ms' => $this->errorMs,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->optional('delay_ms'),
            $data->optional('rise_ms'),
            $data->number('peak'),
            $data->number('peak_ms'),
            $data->optional('settling_ms'),
            $data->number('steady'),
            $data->number('error_ms'),
        );
    }
}
