<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** The curves behind the report, rounded for drawing. */
final readonly class AnalysisCharts
{
    private const LOW_DB = -45.0;
    private const HIGH_DB = 30.0;

    /**
     * @return array{spectrum: array<string, mixed>, step: array<string, mixed>, plant: array<string, array<string, float>>, rotor_hz: list<float>, map: array<string, array<string, mixed>>}
     */
    public static function of(FlightAnalysis $analysis): array
    {
        $spectrum = $step = [];
        foreach ($analysis->axes as $axis => $report) {
            $spectrum[$axis] = [
                'step_hz' => $report->measured->spectrum->stepHz ?? $report->filtered->spectrum->stepHz ?? 0.0,
                'measured_db' => self::rounded($report->measured?->spectrum->decibels() ?? [], 2),
                'filtered_db' => self::rounded($report->filtered?->spectrum->decibels() ?? [], 2),
                'delay_ms' => null === $report->filterDelayMs ? null : round($report->filterDelayMs, 2),
                'attenuation_db' => null === $report->attenuationDb() ? null : round($report->attenuationDb(), 1),
            ];
            if (null !== $report->step) {
                $step[$axis] = [
                    'step_ms' => $report->step->curve->stepS * 1e3,
                    'values' => self::rounded($report->step->curve->values, 4),
                    'low' => self::rounded($report->step->low, 4),
                    'high' => self::rounded($report->step->high, 4),
                ];
            }
        }

        return [
            'spectrum' => $spectrum,
            'step' => $step,
            'plant' => array_map(static fn (AxisPlant $p): array => ['gain' => round($p->gain, 4), 'lag_s' => round($p->lagS, 6), 'dead_s' => round($p->deadS, 6), 'misfit' => round($p->misfit, 4)], $analysis->plants),
            'rotor_hz' => self::rounded($analysis->rotorHz, 2),
            'map' => array_map(self::map(...), $analysis->maps),
        ];
    }

    /** @return array<string, mixed> one byte a cell: 0 to 255 from low_db to high_db; only bins that have data */
    private static function map(NoiseMap $map): array
    {
        $cells = '';
        foreach ($map->density as $row) {
            foreach ($row as $v) {
                $db = 10 * log10(max(1e-12, $v));
                $cells .= \chr((int) round(max(0.0, min(255.0, 255 * ($db - self::LOW_DB) / (self::HIGH_DB - self::LOW_DB)))));
            }
        }

        return ['bin_pct' => NoiseMap::BIN_PCT, 'step_hz' => $map->stepHz, 'bins' => array_keys($map->density), 'windows' => $map->windows, 'low_db' => self::LOW_DB, 'high_db' => self::HIGH_DB, 'cells' => base64_encode($cells)];
    }

    /**
     * @param list<float> $values
     *
     * @return list<float>
     */
    private static function rounded(array $values, int $digits): array
    {
        return array_map(static fn (float $v): float => round($v, $digits), $values);
    }
}
