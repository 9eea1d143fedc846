<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** What arms a craft. */
enum ArmedBy: string
{
    case Switch = 'switch';

    /** Yaw held to its right end at zero throttle. */
    case Stick = 'stick';

    public static function in(SettingSet $set): self
    {
        return self::tryFrom($set->text('arming.by')) ?? self::Switch;
    }
}
