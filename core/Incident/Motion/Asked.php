<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

/** What was asked of an axis lately, and how far its rotation lies outside of it. */
final class Asked
{
    private const ASKED_BACK_S = 0.12;
    private const ASKED_AHEAD_S = 0.01;

    /** Overshoot up to this share of a move belongs to the tune. */
    private const SLACK = 0.55;

    /**
     * How far each axis' rotation lies outside what was asked lately; deg/s, with its sign.
     *
     * @param list<list<float>> $rate
     * @param list<list<float>> $set
     *
     * @return list<list<float>>
     */
    public static function outside(array $rate, array $set, float $stepS): array
    {
        $back = (int) round(self::ASKED_BACK_S / $stepS);
        $ahead = (int) round(self::ASKED_AHEAD_S / $stepS);
        $out = [];
        foreach ($rate as $axis => $w) {
            $s = $set[$axis];
            $n = \count($w);
            $row = $w;
            for ($i = 0; $i < $n; ++$i) {
                $is = $w[$i];
                $low = \INF;
                $high = -\INF;
                for ($j = max(0, $i - $back), $end = min($n - 1, $i + $ahead); $j <= $end; $j += 5) {
                    $v = $s[$j];
                    if ($v < $low) {
                        $low = $v;
                    }
                    if ($v > $high) {
                        $high = $v;
                    }
                    // Between what was asked and what was asked: the rest can only widen that.
                    if ($low <= $is && $is <= $high) {
                        $row[$i] = 0.0;
                        continue 2;
                    }
                }
                // Overshoot in proportion to the move belongs to the tune, not to an incident.
                $slack = self::SLACK * max(abs($low), abs($high), $high - $low);
                $row[$i] = $is > $high + $slack ? $is - $high - $slack : ($is < $low - $slack ? $is - $low + $slack : 0.0);
            }
            $out[] = array_values($row);
        }

        return $out;
    }
}
