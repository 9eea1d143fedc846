<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;

/**
 * Rotation rate against stick: an odd, monotone cubic (Fritsch and Carlson 1980) through (0, 0), (¼, quarter), (½, half) and
 * (1, full); deg/s. The slope at centre and everywhere follows from these; straight where the points are.
 */
final readonly class Feel
{
    /**
     * @param list<float> $rates  at centre, quarter, half and full stick
     * @param list<float> $slopes there, deg/s per full stick
     */
    private function __construct(private array $rates, private array $slopes)
    {
    }

    /** @throws FeelError unless 0 < quarter < half < full */
    public static function of(float $quarter, float $half, float $full): self
    {
        if ($quarter <= 0 || $half <= $quarter || $full <= $half) {
            throw new FeelError($quarter, $half, $full);
        }
        $chords = [4 * $quarter, 4 * ($half - $quarter), 2 * ($full - $half)];
        // The curve is odd: on either side of the centre lies the same chord.
        $slopes = [$chords[0], ($chords[0] + $chords[1]) / 2, ($chords[1] + $chords[2]) / 2, $chords[2]];
        foreach ($chords as $i => $chord) {
            $size = hypot($slopes[$i] / $chord, $slopes[$i + 1] / $chord);
            if ($size > 3.0) {
                $slopes[$i] *= 3 / $size;
                $slopes[$i + 1] *= 3 / $size;
            }
        }

        return new self([0.0, $quarter, $half, $full], $slopes);
    }

    /** @throws FeelError */
    public static function in(SettingSet $set, Axis $axis): self
    {
        $rate = static fn (string $part): float => $set->number("feel.{$axis->value}.{$part}_dps");

        return self::of($rate('quarter'), $rate('half'), $rate('full'));
    }

    /** @param float $stick −1 to 1 */
    public function rate(float $stick): float
    {
        $x = min(1.0, abs($stick));
        [$i, $from, $width] = self::piece($x);
        $t = ($x - $from) / $width;
        $u = 1 - $t;
        // Hermite's form of the cubic between two points with their slopes.
        $rate =
            $u * $u * (1 + 2 * $t) * $this->rates[$i] +
            $t * $t * (3 - 2 * $t) * $this->rates[$i + 1] +
            $width * $t * $u * ($u * $this->slopes[$i] - $t * $this->slopes[$i + 1]);

        return $stick < 0 ? -$rate : $rate;
    }

    /** Slope anywhere, deg/s per full stick. */
    public function slope(float $stick): float
    {
        $x = min(1.0, abs($stick));
        [$i, $from, $width] = self::piece($x);
        $t = ($x - $from) / $width;
        $rise = ($this->rates[$i + 1] - $this->rates[$i]) / $width;

        return 6 * $t * (1 - $t) * $rise + (1 - $t) * (1 - 3 * $t) * $this->slopes[$i] + $t * (3 * $t - 2) * $this->slopes[$i + 1];
    }

    /** @return array{int, float, float} which of its three cubics, where that begins, and how wide it is */
    private static function piece(float $x): array
    {
        return match (true) {
            $x < 0.25 => [0, 0.0, 0.25],
            $x < 0.5 => [1, 0.25, 0.25],
            default => [2, 0.5, 0.5],
        };
    }

    /** Slope at the centre of the stick, deg/s per full stick. */
    public function centreSlope(): float
    {
        return $this->slopes[0];
    }

    public function full(): float
    {
        return $this->rates[3];
    }
}
