<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;

/** What sheet 71 shows. */
final readonly class SettingsView
{
    /**
     * @param array<string, list<array{setting: Setting, value: float|int|bool|string, differs: bool}>> $groups
     */
    public function __construct(
        public array $groups,
        public SettingSet $staged,
        public int $different,
        public int $total,
        public bool $all,
        public string $wanted,
    ) {
    }
}
