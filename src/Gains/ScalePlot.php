<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\Core\Control\GainScale;
use Ortholex\Core\Craft\SettingSet;

/** What P and D are multiplied by over throttle, and over the volts of a cell: as it stands, and as staged. */
final readonly class ScalePlot
{
    public const FOOT = 84.0;
    public const TOP = 10.0;

    /** Factors that are drawn. */
    public const LEAST = 0.4;

    public const MOST = 1.4;
    private const FULL_V = 4.2;
    private const EMPTY_V = 3.3;

    /** Throttle at the left, volts at the right. */
    private const THROTTLE = [30.0, 140.0];

    private const VOLTS = [175.0, 285.0];

    private GainScale $now;
    private GainScale $then;

    public function __construct(SettingSet $now, SettingSet $wanted)
    {
        $this->now = GainScale::of($now);
        $this->then = GainScale::of($wanted);
    }

    public function differs(): bool
    {
        return $this->now != $this->then;
    }

    public function isFlat(): bool
    {
        return $this->now->isFlat() && $this->then->isFlat();
    }

    public function throttle(bool $staged): string
    {
        $scale = $staged ? $this->then : $this->now;

        return self::path(self::THROTTLE, static fn (float $share): float => $scale->overThrottle(100 * $share));
    }

    public function sag(bool $staged): string
    {
        $scale = $staged ? $this->then : $this->now;

        return self::path(
            self::VOLTS,
            static fn (float $share): float => $scale->overSag(self::FULL_V + (self::EMPTY_V - self::FULL_V) * $share),
        );
    }

    public static function y(float $factor): float
    {
        $share = (max(self::LEAST, min(self::MOST, $factor)) - self::LEAST) / (self::MOST - self::LEAST);

        return round(self::FOOT - (self::FOOT - self::TOP) * $share, 1);
    }

    /**
     * @param array{float, float}       $x
     * @param \Closure(float): float $factor of a share from left to right
     */
    private static function path(array $x, \Closure $factor): string
    {
        $path = '';
        for ($i = 0; $i <= 20; ++$i) {
            $path .= ('' === $path ? 'M' : 'L').round($x[0] + (($x[1] - $x[0]) * $i) / 20, 1).' '.self::y($factor($i / 20));
        }

        return $path;
    }
}
