<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\ThrottleCurve;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;

/** The curves that a set of settings gives, as points to draw. */
final readonly class Curves
{
    private const POINTS = 50;

    /**
     * @return array{feel: array<string, list<array{float, float, float}>>, throttle: list<array{float, float}>} stick in %; rate in
     *     deg/s and slope in deg/s per % of stick; output in %
     *
     * @throws \InvalidArgumentException where three rates do not rise, or throttle does not
     */
    public static function of(SettingSet $set): array
    {
        $feel = [];
        foreach (Axis::cases() as $axis) {
            $curve = Feel::in($set, $axis);
            $feel[$axis->value] = [];
            for ($i = 0; $i <= self::POINTS; ++$i) {
                $x = $i / self::POINTS;
                $feel[$axis->value][] = [100 * $x, round($curve->rate($x), 1), round($curve->slope($x) / 100, 3)];
            }
        }
        $curve = ThrottleCurve::in($set);
        $throttle = [];
        for ($i = 0; $i <= self::POINTS; ++$i) {
            $throttle[] = [100 * $i / self::POINTS, round(100 * $curve->output($i / self::POINTS), 2)];
        }

        return ['feel' => $feel, 'throttle' => $throttle];
    }
}
