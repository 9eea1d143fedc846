<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency;

use Ortholex\Core\Craft\SettingSet;

/** One thing that has to hold within a full set of settings. */
interface Rule
{
    /**
     * @param SettingSet $set under the names of the current catalogue
     *
     * @return iterable<Clash> none where it holds
     */
    public function broken(SettingSet $set, Circumstances $of): iterable;
}
