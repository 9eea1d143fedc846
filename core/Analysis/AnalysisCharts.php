<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** The curves behind the report, rounded for drawing. */
final readonly class AnalysisCharts
{
    private const LOW_DB = -45.0;
    private const HIGH_DB = 30.0;

    /**
     * @return array{spectrum: array<string, mixed>, step: array<string, mixed>, plant: array<string, array<string, float>>, rotor_hz: list<float>, map: array<string, array<string, mixed>>, rpm_map: array<string, array<string, mixed>>, full_rpm: float|null, notches: array<string, list<array<string, mixed>>>}
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
                $step[$axis] = self::step($report->step);
            }
        }

        return [
            'spectrum' => $spectrum,
            'step' => $step,
            'plant' => array_map(static fn (AxisPlant $p): array => ['gain' => round($p->gain, 4), 'lag_s' => round($p->lagS, 6), 'dead_s' => round($p->deadS, 6), 'misfit' => round($p->misfit, 4)], $analysis->plants),
            'rotor_hz' => self::rounded($analysis->rotorHz, 2),
            'map' => array_map(self::map(...), $analysis->maps),
            'rpm_map' => array_map(self::map(...), $analysis->rpmMaps),
            'full_rpm' => $analysis->fullRpm,
            'notches' => array_map(static fn (array $tracks): array => array_map(static fn (NotchTrack $t): array => ['kind' => $t->kind, 'number' => $t->number, 'hz' => array_map(static fn (array $hz): array => self::rounded($hz, 1), $t->hz)], $tracks), $analysis->notches),
        ];
    }

    /**
     * The same charts with one axis' step taken from another reckoning of the same log.
     *
     * @param array<mixed> $charts as of() gave them, perhaps kept as JSON since
     *
     * @return array<mixed>
     */
    public static function withStep(array $charts, AxisReport $axis): array
    {
        $steps = \is_array($charts['step'] ?? null) ? $charts['step'] : [];
        unset($steps[$axis->axis]);
        $charts['step'] = $steps + (null === $axis->step ? [] : [$axis->axis => self::step($axis->step)]);

        return $charts;
    }

    /**
     * Densities of a map that was kept as bytes.
     *
     * @param array<mixed> $map as of() gave it
     *
     * @return array<int, list<float>> dB by bin
     */
    public static function rows(array $map): array
    {
        $cells = base64_decode(\is_string($map['cells'] ?? null) ? $map['cells'] : '', true);
        $bins = \is_array($map['bins'] ?? null) ? array_values($map['bins']) : [];
        $width = [] === $bins ? 0 : intdiv(\strlen((string) $cells), \count($bins));
        $rows = [];
        foreach ($bins as $i => $bin) {
            $row = [];
            for ($k = 0; $k < $width; ++$k) {
                $row[] = self::LOW_DB + \ord(((string) $cells)[$i * $width + $k]) / 255 * (self::HIGH_DB - self::LOW_DB);
            }
            $rows[is_numeric($bin) ? (int) $bin : 0] = $row;
        }

        return $rows;
    }

    /** @return array<string, mixed> one byte a cell: 128 is alike, 1 and 255 are $span dB quieter and louder */
    public static function difference(MapDifference $difference, float $spanDb): array
    {
        $cells = '';
        foreach ($difference->db as $row) {
            foreach ($row as $db) {
                $cells .= \chr((int) round(128 + 127 * max(-1.0, min(1.0, $db / $spanDb))));
            }
        }

        return ['bin_pct' => NoiseMap::BIN_PCT, 'step_hz' => $difference->stepHz, 'bins' => array_keys($difference->db), 'span_db' => $spanDb, 'cells' => base64_encode($cells)];
    }

    /** @return array<string, mixed> */
    private static function step(StepResult $step): array
    {
        return [
            'step_ms' => $step->curve->stepS * 1e3,
            'values' => self::rounded($step->curve->values, 4),
            'low' => self::rounded($step->low, 4),
            'high' => self::rounded($step->high, 4),
            'windows' => array_map(static fn (array $w): array => ['at_s' => round($w['at_s'], 4), 'size_dps' => round($w['size_dps'], 1), 'why' => $w['why']], $step->windows),
            'window_s' => $step->windowS,
            'band_hz' => round($step->bandHz, 1),
            'loop' => $step->loop->parameters(),
            'noise' => array_map(static fn (float $v): float => (float) \sprintf('%.3e', $v), $step->noise),
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
    public static function rounded(array $values, int $digits): array
    {
        return array_map(static fn (float $v): float => round($v, $digits), $values);
    }
}
