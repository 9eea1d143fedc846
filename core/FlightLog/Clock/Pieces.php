<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Clock;

use Ortholex\Core\FlightLog\Segment;

/** Stretches of a log that stand for all of it: of one length, evenly spread, none across a gap; what is shorter is taken whole. */
final class Pieces
{
    /** Long enough for what is looked at in windows of seconds. */
    public const SECONDS = 30.0;

    /** A gap leaves at least so much of a piece, or it is left out. */
    private const LEAST_SHARE = 0.2;

    /**
     * @param list<Segment> $segments
     * @param int           $most     samples to be kept
     *
     * @return list<Segment> by sample and time of the whole log
     */
    public static function of(array $segments, float $rateHz, int $most): array
    {
        $all = array_sum(array_map(static fn (Segment $s): int => $s->count, $segments));
        $length = max(1, (int) round(self::SECONDS * $rateHz));
        $count = max(1, intdiv($most, $length));
        $pieces = [];
        $s = $before = 0;
        for ($k = 0; $k < $count; ++$k) {
            $from = $count > 1 ? (int) round($k * ($all - $length) / ($count - 1)) : 0;
            while ($s < \count($segments) - 1 && $from >= $before + $segments[$s]->count) {
                $before += $segments[$s]->count;
                ++$s;
            }
            $at = $segments[$s]->count <= $length ? 0 : $from - $before;
            $kept = min($length, $segments[$s]->count - $at);
            if ($kept >= self::LEAST_SHARE * min($length, $segments[$s]->count)) {
                $pieces[$segments[$s]->first + $at] = new Segment($segments[$s]->first + $at, $kept, $segments[$s]->startS + $at / $rateHz);
            }
        }

        return array_values($pieces);
    }
}
