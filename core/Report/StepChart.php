<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Step\StepResult;
use Ortholex\Core\Step\StepWindow;

/** The step of one axis with its band, all windows that were looked at, and what one window alone is read with. */
final readonly class StepChart
{
    /**
     * @param float            $stepMs  between two values
     * @param list<float>      $values
     * @param list<float>      $low     5 %
     * @param list<float>      $high    95 %
     * @param list<StepWindow> $windows
     * @param float            $windowS length of each
     * @param list<float>      $loop    parameters of LoopModel
     * @param list<float>      $noise   of one window by bin
     */
    private function __construct(
        public float $stepMs,
        public array $values,
        public array $low,
        public array $high,
        public array $windows,
        public float $windowS,
        public float $bandHz,
        public array $loop,
        public array $noise,
    ) {
    }

    public static function of(StepResult $step): self
    {
        return new self(
            $step->curve->stepS * 1e3,
            Charts::rounded($step->curve->values, 4),
            Charts::rounded($step->low, 4),
            Charts::rounded($step->high, 4),
            $step->windows,
            $step->windowS,
            round($step->bandHz, 1),
            $step->loop->parameters(),
            array_map(static fn (float $v): float => (float) \sprintf('%.3e', $v), $step->noise),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'step_ms' => $this->stepMs,
            'values' => $this->values,
            'low' => $this->low,
            'high' => $this->high,
            'windows' => array_map(static fn (StepWindow $w): array => $w->toArray(), $this->windows),
            'window_s' => $this->windowS,
            'band_hz' => $this->bandHz,
            'loop' => $this->loop,
            'noise' => $this->noise,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->number('step_ms'),
            $data->numbers('values'),
            $data->numbers('low'),
            $data->numbers('high'),
            array_map(StepWindow::fromArray(...), $data->rows('windows')),
            $data->number('window_s'),
            $data->number('band_hz'),
            $data->numbers('loop'),
            $data->numbers('noise'),
        );
    }
}
