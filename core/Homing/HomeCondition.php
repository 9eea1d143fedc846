<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

use Ortholex\Core\Craft\SettingSet;

/** What has to be so before a home is set: a fix in space, satellites, and their geometry. */
enum HomeCondition: string
{
    case Fix = 'fix';
    case Satellites = 'satellites';
    case Dop = 'dop';

    /** @return list<self> those that are not met */
    public static function unmet(SettingSet $set, int $mode, int $used, ?float $hdop): array
    {
        return array_values(array_filter(self::cases(), static fn (self $c): bool => !match ($c) {
            self::Fix => 3 === $mode,
            self::Satellites => $used >= $set->whole('location.least_satellites', 8),
            self::Dop => null !== $hdop && $hdop <= $set->number('location.most_hdop', 2.0),
        }));
    }
}
