<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;

/**
 * The other set of gains, that a switch turns on in flight: each in % of its gain in set A, so that nothing untuned is ever flown by
 * accident, and that what A learns B has too.
 */
final readonly class GainSetB
{
    public const TERMS = ['p', 'i', 'd', 'ff'];

    public static function setting(Axis $axis, string $term): string
    {
        return "gain_b.$axis->value.{$term}_pct";
    }

    /** @return SettingSet the same with the gains as B has them, and B no other than these any more */
    public static function applied(SettingSet $set): SettingSet
    {
        $gains = [];
        foreach (Axis::cases() as $axis) {
            foreach (self::TERMS as $term) {
                $name = self::setting($axis, $term);
                if ($set->has($name) && $set->has("gain.$axis->value.$term")) {
                    $gains["gain.$axis->value.$term"] = ($set->number("gain.$axis->value.$term") * $set->number($name, 100.0)) / 100;
                    $gains[$name] = 100.0;
                }
            }
        }

        return $set->with($gains);
    }

    /** Whether it flies otherwise than A. */
    public static function differs(SettingSet $set): bool
    {
        foreach (Axis::cases() as $axis) {
            foreach (self::TERMS as $term) {
                if (100.0 !== $set->number(self::setting($axis, $term), 100.0)) {
                    return true;
                }
            }
        }

        return false;
    }
}
