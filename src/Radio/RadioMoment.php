<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Sticks\Capture;
use Ortholex\Core\Craft\Channel;

/** The sticks at one moment, as the drawing shows them: everything in µs, after what is set or staged of order and direction. */
final readonly class RadioMoment
{
    /**
     * @return array<string, mixed>
     */
    public static function of(RadioState $state, ?Capture $capture): array
    {
        $reading = $state->reading;
        $frames = [];
        $sticks = Channel::cases();
        $new = null === $reading ? [] : $reading->frames;
        foreach ($new as [, , $channels]) {
            $row = [];
            foreach ($sticks as $stick) {
                $us = $channels[$state->number($stick) - 1] ?? null;
                $row[] = null === $us ? null : round($state->reversed($stick) ? 3000 - $us : $us, 1);
            }
            $frames[] = $row;
        }
        $last = null === $reading ? [] : $reading->channels();

        return [
            'step' => $state->step()->value,
            'heard' => $reading?->heard->value,
            'newest' => $reading->newest ?? 0,
            'channels' => array_map(static fn (float $us): float => round($us, 1), $last),
            'trail' => $frames,
            'interval_ms' => null === $reading?->intervalMs ? null : round($reading->intervalMs, 2),
            'lost_pct' => null === $reading ? null : round(100 * $reading->lostShare, 1),
            'quality_pct' => $reading?->link?->qualityPct,
            'asked' => $capture?->asked->value ?? '',
            'state' => $capture?->state() ?? '',
            'capture' => $capture?->kind->value ?? '',
        ];
    }
}
