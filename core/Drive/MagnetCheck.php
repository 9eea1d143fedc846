<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

use Ortholex\Core\Signal\Welch;

/**
 * Whether the rotor magnets set are the ones the motor has.
 *
 * An ESC counts electrical turns; rpm = 2·eRPM/magnets, so a wrong count is wrong by one factor. The shaft itself
 * shakes the board once a turn, however slightly: its true speed stands in the gyro's spectrum, and
 * magnets = 2·eRPM/(60·f). Pole counts are even.
 */
final readonly class MagnetCheck
{
    /** The shake must stand this far over the spectrum's own floor to be believed. */
    private const PROMINENCE_DB = 9.0;

    private function __construct(public float $shakesHz, public float $magnets, public ?int $likely)
    {
    }

    /**
     * @param list<float> $gyro  deg/s, of one axis, while one motor turns
     * @param float       $erpm  electrical revolutions per minute meanwhile
     *
     * @return self|null null when nothing shakes clearly enough near any even pole count from 4 to 36
     */
    public static function of(array $gyro, float $rateHz, float $erpm): ?self
    {
        if ($erpm < 100 || \count($gyro) < 1024) {
            return null;
        }
        $spectrum = Welch::withSegment(2 ** (int) floor(log(\count($gyro), 2)), $rateHz)->density([$gyro]);
        // Twice a turn also shakes, more weakly; the strongest within reach of a real pole count is the turn itself.
        $best = null;
        foreach ($spectrum->peaks(8.0, self::PROMINENCE_DB, 8) as $peak) {
            $magnets = (2 * $erpm) / 60 / $peak->hz;
            if ($magnets >= 3.4 && $magnets <= 37 && (null === $best || $peak->db > $best->db)) {
                $best = $peak;
            }
        }
        if (null === $best) {
            return null;
        }
        $magnets = (2 * $erpm) / 60 / $best->hz;
        $even = 2 * (int) round($magnets / 2);

        return new self($best->hz, $magnets, abs($magnets - $even) < 0.45 ? $even : null);
    }

    /** Factor by which the true rpm differs from what the set count makes of it; 1 when they agree or it cannot tell. */
    public function factor(int $set): float
    {
        return null === $this->likely ? 1.0 : $set / $this->likely;
    }
}
