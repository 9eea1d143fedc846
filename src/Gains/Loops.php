<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\WorkedOut;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Control\GainSetB;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\GainMap;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\GainTuner;
use Ortholex\Core\Tuning\LoopReport;

/** The loop of an axis as it was flown, as it stands or is staged, and as it would be proposed: figures and curves. */
final readonly class Loops
{
    /** Every so manieth point of a curve over frequency is drawn, between these, Hz. */
    private const EVERY = 3;

    private const FROM_HZ = 0.8;
    private const TO_HZ = 300.0;

    public function __construct(
        private AnalysisStore $analyses,
        private Staging $staging,
        private CurrentNames $names,
        private WorkedOut $workedOut,
    ) {
    }

    /**
     * @param bool $setB whether what is staged is asked of the other set of gains
     *
     * @return array<string, array{gains: array<string, float>, figures: array<string, mixed>, push: list<float>,
     *     curve: list<array{float, float, float}>}> by flown, staged and proposed; empty where the log does not tell
     */
    public function of(Craft $craft, Log $log, Axis $axis, bool $setB = false): array
    {
        $charts = $this->analyses->charts($log);
        $plant = $charts->plants[$axis->value] ?? null;
        if (null === $plant || !$log->settings->has("gain.{$axis->value}.p")) {
            return [];
        }
        $wanted = $this->names->of($craft, $this->staging->preview($craft));
        $wanted = $setB ? GainSetB::applied($wanted) : $wanted;
        $peak = ($this->analyses->report($log)->steps[$axis->value] ?? null)?->numbers?->peak;
        $from = [FlightAnalysis::VERSION, $plant, $charts->rotorHz, self::loop($log->settings), self::loop($wanted), $axis->value, $peak];

        return $this->workedOut->once('loop_curves', $from, static function () use ($plant, $charts, $log, $wanted, $axis, $peak): array {
            $sets = ['flown' => $log->settings];
            if (self::loop($log->settings) != self::loop($wanted)) {
                $sets['staged'] = $wanted;
            }
            $filters = RateFilters::of($log->settings, $log->settings->loopHz(), $charts->rotorHz);
            $better = GainTuner::advise($plant, GainSet::ofAxis($log->settings, $axis), $filters, $peak, Axis::Yaw !== $axis);
            if (null !== $better) {
                $sets['proposed'] = $log->settings->with(self::gains($better->gains, $axis));
            }

            return array_map(static fn (SettingSet $s): array => self::told($plant, $axis, $s, $charts->rotorHz), $sets);
        });
    }

    /** How far P and D could go, and what it costs. Null where the log does not tell. */
    public function map(Craft $craft, Log $log, Axis $axis, bool $setB = false): ?GainMap
    {
        $charts = $this->analyses->charts($log);
        $plant = $charts->plants[$axis->value] ?? null;
        $set = $this->names->of($craft, $this->staging->preview($craft));
        $set = $setB ? GainSetB::applied($set) : $set;
        $from = [FlightAnalysis::VERSION, $plant, $charts->rotorHz, self::loop($set), $axis->value];

        return null === $plant ? null : $this->workedOut->once('gain_map', $from, static fn (): GainMap => GainMap::of(
            $plant,
            GainSet::ofAxis($set, $axis),
            RateFilters::of($set, $set->loopHz(), $charts->rotorHz),
        ));
    }

    /**
     * @param list<float> $rotorHz
     *
     * @return array{gains: array<string, float>, figures: array<string, mixed>, push: list<float>, curve: list<array{float, float, float}>}
     */
    private static function told(AxisPlant $plant, Axis $axis, SettingSet $set, array $rotorHz): array
    {
        $report = LoopReport::under($plant, $axis, $set, $set->loopHz(), $rotorHz);
        $curve = [];
        foreach ($report->margins->curve as $i => [$hz, $re, $im]) {
            if (0 === $i % self::EVERY && $hz >= self::FROM_HZ && $hz <= self::TO_HZ) {
                $curve[] = [round($hz, 3), round($re, 4), round($im, 4)];
            }
        }
        $gains = GainSet::ofAxis($set, $axis);

        return [
            'gains' => ['p' => $gains->p, 'i' => $gains->i, 'd' => $gains->d],
            'figures' => $report->toArray() + ['noise' => $report->prediction->noiseGain],
            'push' => array_map(static fn (float $v): float => round($v, 3), $report->disturbance->rateDps),
            'curve' => $curve,
        ];
    }

    /** @return array<string, float> */
    private static function gains(GainSet $gains, Axis $axis): array
    {
        return [
            "gain.{$axis->value}.p" => $gains->p,
            "gain.{$axis->value}.i" => $gains->i,
            "gain.{$axis->value}.d" => $gains->d,
        ];
    }

    /** @return array<string, float|int|bool|string> what the loop follows from */
    private static function loop(SettingSet $set): array
    {
        $some = $set->where(static fn (string $n): bool => 1 === preg_match('~^(gain|rate_path|d_path|notch)\.|^motors\.(loop|rpm)~', $n));
        $values = $some->toArray();
        ksort($values);

        return $values;
    }
}
