<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\Core\Craft\SettingSet;

/** The other set of gains, as sheet 61 shows it. */
final readonly class SetBView
{
    /**
     * @param SettingSet $gains   as it flies them, as staged
     * @param bool       $differs from set A
     * @param string     $zones   where a switch turns it on; '' for nowhere
     */
    public function __construct(public SettingSet $gains, public bool $differs, public string $zones)
    {
    }
}
