<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Migration\Fate;

/** What going back to an earlier state would stage, under the names of now. */
final readonly class WayBack
{
    /**
     * @param SettingSet            $values what the settings would be
     * @param SettingSet            $now    what the craft holds of them
     * @param list<int>             $over   later revisions that changed some of them too, newest first
     * @param array<string, string> $moved  what is to be said of ESCs that sit elsewhere now, by place of then
     * @param list<Fate>            $fates  what the version of now takes otherwise, or not at all
     * @param list<string>          $images ESC firmware of before, by the keys that sheet 12 knows it by; it is written there
     */
    public function __construct(
        public SettingSet $values,
        public SettingSet $now,
        public array $over,
        public array $moved,
        public array $images = [],
        public array $fates = [],
    ) {
    }

    public function changesNothing(): bool
    {
        return $this->values->isEmpty();
    }

    /** What a page that has shown this sends along, so that nothing is overridden that it did not name. */
    public function seen(): string
    {
        return implode(',', $this->over);
    }
}
