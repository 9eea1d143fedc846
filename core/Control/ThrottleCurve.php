<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\SettingSet;

/**
 * Throttle against stick: a monotone cubic (Fritsch and Carlson 1980) from nothing through the hover point to the limit, as soft around
 * hover as wanted; straight when the points lie so and nothing is softened.
 */
final readonly class ThrottleCurve
{
    /**
     * @param float $hoverStick  0 to 1
     * @param float $hoverOutput 0 to 1
     * @param float $limit       0 to 1, at full stick
     * @param list<float> $slopes at nothing, hover and full
     */
    private function __construct(public float $hoverStick, public float $hoverOutput, public float $limit, private array $slopes)
    {
    }

    /**
     * @param float $softness 0 for none to under 1; by so much the slope at hover is less than it would be
     *
     * @throws ThrottleCurveError unless the hover point lies within, and below the limit
     */
    public static function of(float $hoverStick, float $hoverOutput, float $softness, float $limit): self
    {
        if ($hoverStick <= 0 || $hoverStick >= 1 || $hoverOutput <= 0 || $hoverOutput >= $limit) {
            throw new ThrottleCurveError($hoverStick, $hoverOutput, $limit);
        }
        $below = $hoverOutput / $hoverStick;
        $above = ($limit - $hoverOutput) / (1 - $hoverStick);
        // The harmonic mean of the chords keeps a cubic monotone; softness takes its share of it.
        $slope = ((2 * $below * $above) / ($below + $above)) * (1 - $softness);
        $end = static fn (float $chord): float => max(0.0, min(3 * $chord, 1.5 * $chord - 0.5 * $slope));

        return new self($hoverStick, $hoverOutput, $limit, [$end($below), $slope, $end($above)]);
    }

    /** @throws ThrottleCurveError */
    public static function in(SettingSet $set): self
    {
        return self::of(
            $set->number('throttle.hover_stick_pct', 50) / 100,
            $set->number('throttle.hover_output_pct', 50) / 100,
            $set->number('throttle.softness_pct') / 100,
            $set->number('throttle.limit_pct', 100) / 100,
        );
    }

    /** @param float $stick 0 to 1 */
    public function output(float $stick): float
    {
        $x = max(0.0, min(1.0, $stick));
        [$from, $width, $a, $b, $sa, $sb] =
            $x < $this->hoverStick
                ? [0.0, $this->hoverStick, 0.0, $this->hoverOutput, $this->slopes[0], $this->slopes[1]]
                : [$this->hoverStick, 1 - $this->hoverStick, $this->hoverOutput, $this->limit, $this->slopes[1], $this->slopes[2]];
        $t = ($x - $from) / $width;
        $u = 1 - $t;

        return $u * $u * (1 + 2 * $t) * $a + $t * $t * (3 - 2 * $t) * $b + $width * $t * $u * ($u * $sa - $t * $sb);
    }
}
