<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Craft\SettingSet;

/** A flight that is behind us: what it was flown with, and what its log can be used for. */
final readonly class FlownLog
{
    /** @param SettingSet $settings none where the log does not say */
    public function __construct(public SettingSet $settings, public Adequacy $adequacy)
    {
    }
}
