<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/** What a log can be used for: throttle covered, motion per axis, length, and what is missing. */
final readonly class Adequacy
{
    private const BIN_PCT = 10;

    /**
     * @param list<float>           $throttleShare share of time per ten percent of throttle; empty when it was not logged
     * @param array<string, float>  $motion        RMS of the setpoint by axis, deg/s
     * @param list<string>          $can
     * @param list<string>          $cannot        with the reason, and which card to fly
     */
    private function __construct(public array $throttleShare, public array $motion, public float $durationS, public array $can, public array $cannot)
    {
    }

    public static function of(FlightLog $log): self
    {
        $share = [];
        if ($log->has('throttle_pct')) {
            $counts = array_fill(0, 10, 0);
            $throttle = $log->trace('throttle_pct');
            for ($i = 0, $n = \count($throttle); $i < $n; $i += 10) {
                ++$counts[max(0, min(9, (int) ($throttle[$i] / self::BIN_PCT)))];
            }
            $share = array_map(static fn (int $c): float => round($c / max(1, array_sum($counts)), 4), array_values($counts));
        }
        $motion = [];
        foreach (Traces::AXES as $axis) {
            $motion[$axis] = $log->has("setpoint_{$axis}_dps") ? round(Statistics::deviation($log->trace("setpoint_{$axis}_dps")), 1) : 0.0;
        }
        $can = $cannot = [];
        $duration = $log->clock->durationS();
        $moved = array_keys(array_filter($motion, static fn (float $m): bool => $m >= 40));
        [] !== $moved && $duration >= 12 ? $can[] = 'step response of '.implode(' and ', $moved) : $cannot[] = $duration < 12 ? 'step response: it is shorter than 12 s' : 'step response: the sticks moved too little; fly Mixed sticks with the test feel';
        $levels = \count(array_filter($share, static fn (float $s): bool => $s > 0.005));
        $rates = [] !== array_filter(Traces::AXES, static fn (string $a): bool => $log->has("rate_measured_{$a}_dps"));
        match (true) {
            !$rates => $cannot[] = 'noise before the filters: the measured rate was not logged',
            [] === $share => $cannot[] = 'noise against throttle: the throttle was not logged',
            $levels < 5 => $cannot[] = 'noise against throttle: only '.(10 * $levels).' % of the throttle was flown; fly Hover and climb',
            default => $can[] = 'noise against throttle',
        };
        $log->clock->rateHz < 900 && $rates ? $cannot[] = \sprintf('noise above %.0f Hz: it was sampled at %.0f Hz', $log->clock->rateHz / 2, $log->clock->rateHz) : null;
        [] !== $moved ? $can[] = 'lag of '.implode(' and ', $moved) : null;
        $log->has('term_p_roll') && $log->has('term_d_roll') ? $can[] = 'verdicts on P and D' : $cannot[] = 'verdicts on P and D from their own traces: they were not logged';
        $outputs = \count($log->places());
        $outputs >= 3 ? $can[] = 'who stopped pushing, should one' : $cannot[] = 'which motor failed: the outputs were not logged';

        return new self($share, $motion, $duration, $can, $cannot);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['throttle_share' => $this->throttleShare, 'motion_dps' => $this->motion, 'duration_s' => round($this->durationS, 2), 'can' => $this->can, 'cannot' => $this->cannot];
    }
}
