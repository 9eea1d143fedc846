<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Knows what staged settings would do; said in the tray before a Commit. */
#[AutoconfigureTag]
interface TrayEffects
{
    /**
     * @param SettingSet $after all settings as they would be
     *
     * @return iterable<TrayEffect>
     */
    public function effects(Craft $craft, SettingSet $after): iterable;
}
