<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\SettingSet;

/** What a stage of a filter path does. */
enum LowPass: string
{
    case Off = 'off';
    case FirstOrder = 'first_order';
    case SecondOrder = 'second_order';

    /** @param string $path rate_path or d_path */
    public static function of(SettingSet $set, string $path, int $stage): self
    {
        return self::tryFrom($set->text("$path.stage.$stage.kind")) ?? self::Off;
    }
}
