<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\Core\Craft\SettingSet;

/** What a snapshot is held against: another snapshot, another craft, or a file; under the names of what this craft runs now. */
final readonly class Side
{
    /** @param string $key by which an address asks for it; '' for a file, which no address knows */
    public function __construct(public string $key, public string $name, public SettingSet $settings)
    {
    }
}
