<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\WorkedOut;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\BehindNotches;
use Ortholex\Core\Filters\ClosedLoop;
use Ortholex\Core\Filters\Cutoff\DCutoffs;
use Ortholex\Core\Filters\TradeOff;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Filters\WhatIfAxis;
use Ortholex\Core\Filters\WhatIfMap;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\MapChart;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Core\Tuning\LoopReport;

/** Logs run through chains that they need not have been flown with; what several chains share is worked out once. */
final readonly class WhatIfs
{
    /** What the notches follow from. */
    private const NOTCHES = '~^(notch\.|motors\.(rpm_feedback|loop_rate_hz)$)~';

    /** What the loop follows from. */
    private const LOOP = '~^(notch\.|rate_path\.|d_path\.|motors\.|gain\.)~';

    /** What the whole chain follows from. */
    private const CHAIN = '~^(notch\.|rate_path\.|d_path\.|motors\.(rpm_feedback|loop_rate_hz)$)~';

    public function __construct(
        private LogStore $logs,
        private AnalysisStore $analyses,
        private WorkedOut $workedOut,
        private CurrentNames $names,
    ) {
    }

    /** @param SettingSet $set under the names of the craft's firmware */
    public function of(Craft $craft, Log $log, SettingSet $set): WhatIf
    {
        $current = $this->names->of($craft, $set);

        return WhatIf::behind($this->notched($log, $current), $current, $this->loop($log));
    }

    /** How other filters would make the craft fly otherwise, as far as the log tells. */
    private function loop(Log $log): ClosedLoop
    {
        $charts = $this->analyses->charts($log);

        return new ClosedLoop($charts->plants, $log->settings, $charts->rotorHz);
    }

    /** Of a log with the chain that it was itself flown with. */
    public function asFlown(Log $log): WhatIf
    {
        return WhatIf::behind($this->notched($log, $log->settings), $log->settings);
    }

    /** @return array{float, float} delay at 30 Hz of the rate path, and of the D path behind it, ms; the mean of the axes */
    public static function delaysMs(WhatIf $of): array
    {
        $n = max(1, \count($of->axes));

        return [
            array_sum(array_map(static fn (WhatIfAxis $a): float => $a->delayMs, $of->axes)) / $n,
            array_sum(array_map(static fn (WhatIfAxis $a): float => $a->dDelayMs, $of->axes)) / $n,
        ];
    }

    /** @return array{float, float}|null between which speeds the motors turned, Hz */
    public function rotorHz(Craft $craft, Log $log, SettingSet $set): ?array
    {
        return $this->notched($log, $this->names->of($craft, $set))->rotorHz;
    }

    /** Whether the log was flown with this very chain, so that what it logged is what the chain leaves. */
    public function flew(Craft $craft, Log $log, SettingSet $set): bool
    {
        return self::only($this->names->of($craft, $set), self::CHAIN) == self::only($log->settings, self::CHAIN);
    }

    /** @return array<string, float> what is left of each axis, deg/s RMS, as the log itself has it */
    public function logged(Log $log): array
    {
        return array_filter(array_map(
            static fn ($spectrum): ?float => $spectrum?->rmsDps,
            $this->analyses->report($log)->filtered,
        ), static fn (?float $v): bool => null !== $v);
    }

    /** @return array<string, array<string, mixed>> margins and step of each axis that the log knows, as LoopReport gives them */
    public function loops(Craft $craft, Log $log, SettingSet $set): array
    {
        $current = $this->names->of($craft, $set);
        $charts = $this->analyses->charts($log);
        $from = [FlightAnalysis::VERSION, $charts->plants, $charts->rotorHz, self::only($current, self::LOOP)];

        return $this->workedOut->once('loops', $from, static function () use ($current, $charts): array {
            $loops = [];
            foreach ($charts->plants as $axis => $plant) {
                $loops[$axis] = LoopReport::under($plant, Axis::from($axis), $current, $current->loopHz(), $charts->rotorHz)->toArray();
            }

            return $loops;
        });
    }

    /** The curve that the craft's own chain is on or over; of a long log told by stretches. */
    public function tradeOff(Craft $craft, Log $log, SettingSet $now): TradeOff
    {
        $current = SettingSet::of(self::only($this->names->of($craft, $now), self::LOOP));
        $loop = $this->loop($log);
        $from = [FlightAnalysis::VERSION, $log->sha256, $log->turned, $current->toArray(), $loop];

        return $this->workedOut->once('trade_off', $from, fn (): TradeOff => TradeOff::of(
            $this->flight($log, $this->wanted($log)),
            $current,
            $loop,
            measured: array_map(static fn (array $one): Spectrum => $one['measured'], $this->notched($log, $current)->axes),
        )->frontAlone());
    }

    /** Null where the log does not tell up to where the axis follows the stick, or the axis has no D. */
    public function dCutoffs(Craft $craft, Log $log, SettingSet $set, Axis $axis): ?DCutoffs
    {
        $current = $this->names->of($craft, $set);
        $d = $current->number("gain.{$axis->value}.d");
        $notched = $this->notched($log, $current);
        $behind = $notched->axes[$axis->value]['left'] ?? null;
        if (null === $behind || $d <= 0) {
            return null;
        }
        $from = [FlightAnalysis::VERSION, $log->sha256, $log->turned, $axis->value];
        $band = $this->workedOut->once('d_band', $from, function () use ($log, $axis): array {
            [$set, $rate] = [Traces::setpoint($axis), Traces::measuredRate($axis)];
            $flight = $this->flight($log, [$set, $rate]);

            return [$flight->has($set) ? DCutoffs::band($flight->runs($set), $flight->runs($rate), $flight->clock->rateHz) : null];
        })[0];

        return null === $band ? null : DCutoffs::of($behind, $current, $d, $band, $notched->loopHz, $notched->logHz);
    }

    /** The noise map behind a chain, over throttle; null where the log has not what it takes. */
    public function map(Craft $craft, Log $log, SettingSet $set, Axis $axis): ?MapChart
    {
        $current = $this->names->of($craft, $set);
        $from = [FlightAnalysis::VERSION, $log->sha256, $log->turned, self::only($current, self::CHAIN), $axis->value];

        return $this->workedOut->once('what_if_map', $from, function () use ($log, $current, $axis): ?MapChart {
            $flight = $this->flight($log, [...$this->wanted($log), 'throttle_pct']);
            $map = WhatIfMap::of($flight, $current, $axis, FlightAnalysis::throttle($flight));

            return null === $map || [] === $map->density ? null : MapChart::of($map);
        });
    }

    private function notched(Log $log, SettingSet $current): BehindNotches
    {
        $from = [FlightAnalysis::VERSION, $log->sha256, $log->turned, self::only($current, self::NOTCHES)];

        return $this->workedOut->once(
            'behind_notches',
            $from,
            fn (): BehindNotches => BehindNotches::of($this->flight($log, $this->wanted($log)), $current),
        );
    }

    /**
     * Of an hour at 8 kHz stretches, as everywhere: all of it would not fit.
     *
     * @param list<string> $wanted traces
     */
    private function flight(Log $log, array $wanted): FlightLog
    {
        return $this->logs->load($log, $wanted)->thinned(FlightAnalysis::MOST_SAMPLES);
    }

    /** @return list<string> the traces that filters work on and follow */
    private function wanted(Log $log): array
    {
        return array_values(array_filter(
            $log->traces,
            static fn (string $t): bool => 1 === preg_match('~^(rate_measured_|rpm_|output_)~', $t),
        ));
    }

    /** @return array<string, float|int|bool|string> in the order of their names */
    private static function only(SettingSet $set, string $pattern): array
    {
        $some = $set->where(static fn (string $name): bool => 1 === preg_match($pattern, $name))->toArray();
        ksort($some);

        return $some;
    }
}
