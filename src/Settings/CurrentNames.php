<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;

/** A craft's settings under the names of the current firmware, which the rules know. */
final readonly class CurrentNames
{
    public function __construct(private Catalogue $catalogue)
    {
    }

    /** @param SettingSet $settings of the craft's own firmware */
    public function of(Craft $craft, SettingSet $settings): SettingSet
    {
        return Migration::between($this->catalogue, $settings, $craft->version(), Version::parse(Catalogue::CURRENT))->settings;
    }
}
