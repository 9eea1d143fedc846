<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;

/**
 * What ClosedLoop::ratio() gives, for many chains that differ in their rate path alone: the loop without that path, and the response of
 * each path, are reckoned once.
 */
final class LoopRatios
{
    private const STAGES_OFF = [
        'rate_path.stage.1.kind' => 'off',
        'rate_path.stage.2.kind' => 'off',
        'rate_path.stage.3.kind' => 'off',
        'rate_path.stage.4.kind' => 'off',
    ];

    /** @var array<string, list<array{float, float}>> by low-passes, then frequency: real and imaginary part */
    private array $lowPasses = [];

    /** @var array<string, list<array{float, float}>> by motor notches */
    private array $notches = [];

    /**
     * @param list<float>                $shaken  |1 + L|² as flown, by frequency
     * @param list<array{float, float}>  $open    L as it would be, but for the rate path: real and imaginary part
     * @param list<float>                $rotorHz at which the motors turned
     * @param float                      $most    by which ratio the power changes at most
     */
    public function __construct(
        private readonly array $shaken,
        private readonly array $open,
        private readonly array $rotorHz,
        private readonly float $loopHz,
        private readonly float $stepHz,
        private readonly float $most,
    ) {
    }

    /** @return list<float> ratio of power, by frequency; above the last it is 1 */
    public function of(SettingSet $chain): array
    {
        $low = RateFilters::of($chain->with(['notch.motor.orders' => '']), $this->loopHz);
        $f = $this->lowPasses[serialize($low->ratePath->stages)] ??= $this->response($low);
        $key = "{$chain->text('notch.motor.orders')}|{$chain->number('notch.motor.width_pct', 23.0)}|{$chain->flag('motors.rpm_feedback')}";
        $n = $this->notches[$key] ??= $this->response(RateFilters::of($chain->with(self::STAGES_OFF), $this->loopHz, $this->rotorHz));
        $shaken = $this->shaken;
        $most = $this->most;
        $least = 1 / $most;
        $out = [];
        foreach ($this->open as $k => [$lr, $li]) {
            [$ar, $ai] = $f[$k];
            [$br, $bi] = $n[$k];
            $hr = $ar * $br - $ai * $bi;
            $hi = $ar * $bi + $ai * $br;
            $re = 1 + $lr * $hr - $li * $hi;
            $im = $lr * $hi + $li * $hr;
            $will = $re * $re + $im * $im;
            $ratio = $shaken[$k] / ($will > 1e-6 ? $will : 1e-6);
            $out[] = $ratio > $most ? $most : ($ratio < $least ? $least : $ratio);
        }

        return $out;
    }

    /** @return list<array{float, float}> */
    private function response(RateFilters $filters): array
    {
        return array_map(fn (int $k): array => $filters->ratePath->response($k * $this->stepHz), array_keys($this->open));
    }
}
