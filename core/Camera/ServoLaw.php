<?php

declare(strict_types=1);

namespace Ortholex\Core\Camera;

use Ortholex\Core\Craft\SettingSet;

/**
 * The servo that tilts a camera: µs = middle + (deg · µs per deg), the other way about when reversed, held between low and high, where its
 * linkage binds. Degrees are of the camera against the craft, nose up is +.
 */
final readonly class ServoLaw
{
    /** How far a knob tilts it to each side, deg. */
    public const KNOB_DEG = 45.0;

    private function __construct(
        public float $lowUs,
        public float $middleUs,
        public float $highUs,
        public float $usPerDeg,
        public bool $reversed,
        public float $restDeg,
        public bool $followsPitch,
        public int $knob,
    ) {
    }

    public static function in(SettingSet $set): self
    {
        return new self(
            $set->number('camera.low_us', 1100),
            $set->number('camera.middle_us', 1500),
            $set->number('camera.high_us', 1900),
            $set->number('camera.us_per_deg', 10),
            $set->flag('camera.reversed'),
            $set->number('camera.rest_deg'),
            $set->flag('camera.follows_pitch'),
            $set->whole('camera.knob_channel'),
        );
    }

    /** µs that point the camera at so many degrees against the craft. */
    public function us(float $deg): float
    {
        return max($this->lowUs, min($this->highUs, $this->middleUs + ($this->reversed ? -1 : 1) * $deg * $this->usPerDeg));
    }

    /** Degrees that a pulse points it at, whether it can get there or not. */
    public function deg(float $us): float
    {
        return (($this->reversed ? -1 : 1) * ($us - $this->middleUs)) / $this->usPerDeg;
    }

    /** @return array{float, float} the farthest it looks down and up, deg */
    public function reach(): array
    {
        $ends = [$this->deg($this->lowUs), $this->deg($this->highUs)];

        return [min($ends), max($ends)];
    }

    /**
     * Where it points, against the craft: at rest, by the knob, and against the craft's own pitch where it follows that.
     *
     * @param float|null $knobUs   null without one
     * @param bool       $levels   whether camera level is on
     */
    public function asked(float $pitchDeg, ?float $knobUs, bool $levels): float
    {
        $knob = null === $knobUs || 0 === $this->knob ? 0.0 : (($knobUs - 1500) / 500) * self::KNOB_DEG;

        return $this->restDeg + $knob - ($this->followsPitch || $levels ? $pitchDeg : 0.0);
    }

    /**
     * µs per degree from two places that were shown.
     *
     * @param array{float, float} $a µs and degrees seen there
     * @param array{float, float} $b
     *
     * @return array{float, bool}|null µs per degree, and whether it is reversed; null where they are too alike
     */
    public static function slope(array $a, array $b): ?array
    {
        $deg = $b[1] - $a[1];

        return abs($deg) < 5 ? null : [abs(($b[0] - $a[0]) / $deg), ($b[0] - $a[0]) / $deg < 0];
    }
}
