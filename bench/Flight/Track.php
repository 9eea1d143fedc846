<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight;

use Ortholex\Core\World\FlownPath;

/** Where a craft was in flight, looked at now and then. */
final class Track
{
    private const EVERY_S = 0.05;

    public float $noticedS = -1.0;
    public float $offS = -1.0;
    public float $impactMs = 0.0;

    /** What the flight took from the pack. */
    public float $usedAh = 0.0;

    /** @var array{float, float}|null where the board took home for */
    public ?array $home = null;

    /** @var list<array{float, float, float, float, float, string}> s, north, east and height in m, m/s down, stage of its link-loss plan */
    public array $points = [];

    private float $next = 0.0;

    /**
     * @param array{float, float, float} $at    north, east, down
     * @param array{float, float, float} $speed
     */
    public function see(float $t, array $at, array $speed, string $stage): void
    {
        if ($t >= $this->next) {
            $this->next = $t + self::EVERY_S;
            $this->points[] = [$t, $at[0], $at[1], -$at[2], $speed[2], $stage];
        }
    }

    /**
     * Where it ended.
     *
     * @param array{float, float, float} $at
     * @param array{float, float, float} $speed
     */
    public function end(float $t, array $at, array $speed, string $stage): void
    {
        $this->next = 0.0;
        $this->see($t, $at, $speed, $stage);
    }

    public function flown(): FlownPath
    {
        return new FlownPath($this->points, $this->offS, $this->noticedS, $this->impactMs, $this->usedAh, $this->home);
    }
}
