<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;

/** What a board would fly with. */
final readonly class Aboard
{
    /** @param SettingSet $settings under the names of $version */
    public function __construct(public Version $version, public SettingSet $settings)
    {
    }
}
