<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Fact\Stored;

/** Spectra of one axis before and after the filters, dB of (deg/s)²/Hz from zero on. */
final readonly class SpectrumChart
{
    /**
     * @param list<float> $measuredDb empty where it was not logged
     * @param list<float> $filteredDb
     */
    private function __construct(
        public float $stepHz,
        public array $measuredDb,
        public array $filteredDb,
        public ?float $delayMs,
        public ?float $attenuationDb,
    ) {
    }

    public static function of(AxisReport $report): self
    {
        return new self(
            $report->measured->spectrum->stepHz ?? ($report->filtered->spectrum->stepHz ?? 0.0),
            Charts::rounded($report->measured?->spectrum->decibels() ?? [], 2),
            Charts::rounded($report->filtered?->spectrum->decibels() ?? [], 2),
            null === $report->filterDelayMs ? null : round($report->filterDelayMs, 2),
            null === $report->attenuationDb() ? null : round($report->attenuationDb(), 1),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'step_hz' => $this->stepHz,
            'measured_db' => $this->measuredDb,
            'filtered_db' => $this->filteredDb,
            'delay_ms' => $this->delayMs,
            'attenuation_db' => $this->attenuationDb,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->number('step_hz'),
            $data->numbers('measured_db'),
            $data->numbers('filtered_db'),
            $data->optional('delay_ms'),
            $data->optional('attenuation_db'),
        );
    }
}
