<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\RoadMap\TuneStep;
use Ortholex\Core\Settings\Setting;

/** What sheet 61 shows. */
final readonly class GainsView
{
    /**
     * @param array<string, array<string, Setting>>           $rows   axis => term => setting
     * @param list<Setting>                                   $others gains that belong to no axis
     * @param array<string, array{low: float, high: float}>   $ranges
     * @param list<Log>                                       $logs
     * @param array<string, array{gains: array<string, float>, figures: array<string, mixed>}> $loops by flown, staged, proposed
     */
    public function __construct(
        public Axis $axis,
        public array $rows,
        public SettingSet $now,
        public SettingSet $staged,
        public array $others,
        public array $ranges,
        public ?Log $log,
        public array $logs,
        public ?GainFindings $findings,
        public array $loops,
        public ?RoadView $road,
        public float $filterMs,
        public ScalePlot $scale,
        public bool $isSetB,
        public ?SetBView $setB,
    ) {
    }

    /** @return list<string> the axes beside the one that is shown */
    public function beside(): array
    {
        return array_values(array_filter(array_keys($this->rows), fn (string $axis): bool => $axis !== $this->axis->value));
    }

    /** @return list<GainFinding> of the axis shown first */
    public function told(): array
    {
        $all = $this->findings->all ?? [];
        usort($all, fn (GainFinding $a, GainFinding $b): int => ($b->axis === $this->axis->value) <=> ($a->axis === $this->axis->value));

        return $all;
    }

    /** @return list<TuneStep> the stations of the road */
    public function stations(): array
    {
        return TuneStep::cases();
    }

    public function answer(): string
    {
        return match (true) {
            [] === $this->rows => 'Link the craft once, so that its gains are known.',
            $this->isSetB && true === $this->setB?->differs => 'Set B: what the switch turns on, in % of set A.',
            $this->isSetB => 'Set B flies as set A does, so far.',
            null === $this->findings => 'These are the gains; no log yet shows what they do.',
            default => $this->findings->answer,
        };
    }
}
