<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

/** What a return takes from a distance and a height, in wind: seconds, charge, and whether it comes home at all. */
final readonly class ReturnForecast
{
    /** Less headway than this over the ground is none, m/s: gusts eat it. */
    public const LEAST_HEADWAY_MS = 1.0;

    /** Gusts over the mean: what stands against these stays over home. */
    private const GUSTS = 1.4;

    /** Turning to home and getting under way, and the last metres under the ground's own push; s. */
    private const TURNS_S = 1.5;

    private const LANDS_S = 1.0;

    /** What cannot be got under way at once is flown slower near home: half a second for each metre a second. */
    private const SLOWS_S = 0.3;

    /**
     * @param float|null $groundMs speed over the ground on the way; null where the wind is too much
     * @param float      $airMs    speed through the air on the way
     * @param float|null $seconds  null where it does not come home
     */
    private function __construct(public ?float $groundMs, public float $airMs, public ?float $seconds, public ?float $ah)
    {
    }

    /**
     * @param float $windMs      mean
     * @param float $againstDeg  0 where it blows straight against the way home, 180 from behind
     */
    public static function of(ReturnPlan $plan, AirLaw $air, float $distanceM, float $heightM, float $windMs, float $againstDeg): self
    {
        $most = $air->airspeed($plan->mostTiltDeg);
        $head = $windMs * cos(deg2rad($againstDeg));
        $cross = $windMs * abs(sin(deg2rad($againstDeg)));
        $up = max(0.0, $plan->backAtM($heightM) - $heightM);
        // The wind is stood against in the climb and over home, too.
        if (self::GUSTS * $windMs >= $most) {
            return new self(null, $most, null, null);
        }
        $ground = min($plan->speedMs, sqrt($most ** 2 - $cross ** 2) - $head);
        if ($ground < self::LEAST_HEADWAY_MS) {
            return new self(null, $most, null, null);
        }
        $through = hypot($ground + $head, $cross);
        $climb = $up / max(0.1, $plan->climbMs);
        $back = $distanceM / $ground + self::SLOWS_S * $ground + self::TURNS_S;
        $down = ($heightM + $up) / max(0.1, $plan->sinkMs) + self::LANDS_S;
        $amperes = $air->current($windMs) * ($climb + $down) + $air->current($through) * $back;

        return new self($ground, $through, $climb + $back + $down, $amperes / 3600);
    }

    public function comesHome(): bool
    {
        return null !== $this->seconds;
    }

    /**
     * The distance from which a charge just brings it home.
     *
     * @param float $ah above flight end
     *
     * @return float|null m; null where the wind, or the climb alone, is too much
     */
    public static function noReturnM(ReturnPlan $plan, AirLaw $air, float $ah, float $heightM, float $windMs, float $againstDeg): ?float
    {
        $near = self::of($plan, $air, 0.0, $heightM, $windMs, $againstDeg);
        if (null === $near->ah || null === $near->groundMs || $near->ah > $ah) {
            return null;
        }

        return ($ah - $near->ah) * 3600 / $air->current($near->airMs) * $near->groundMs;
    }
}
