<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;

/** What sheet 71 shows: all settings, or those asked for. */
final readonly class SettingsView
{
    /**
     * @param array<string, list<array{setting: Setting, value: float|int|bool|string, differs: bool}>> $groups
     * @param list<string>                                     $of     groups there are
     * @param array<string, array{low: float, high: float}>    $ranges
     */
    private function __construct(
        public array $groups,
        public SettingSet $settings,
        public SettingSet $staged,
        public int $different,
        public int $shown,
        public ShownSettings $which,
        public string $words,
        public string $group,
        public array $of,
        public string $wanted,
        public array $ranges,
    ) {
    }

    /** @param array<string, Setting> $table by name, in the order in which they stand */
    public static function of(SettingSet $is, SettingSet $defaults, SettingSet $staged, array $table, Input $asked, Words $words): self
    {
        $wanted = $asked->text('setting', 80);
        $search = $asked->text('q', 80);
        $group = $asked->text('group', 20);
        $which = ShownSettings::tryFrom($asked->text('which', 12)) ??
            ('' !== $wanted || '' !== $search || $asked->flag('all') ? ShownSettings::All : ShownSettings::Different);
        $view = self::shown($is, $defaults, $staged, $table, $which, $group, $search, $words, $wanted);

        // What is searched and is as it comes is found all the same.
        return 0 === $view->shown && '' !== $search && ShownSettings::Different === $which
            ? self::shown($is, $defaults, $staged, $table, ShownSettings::All, $group, $search, $words, $wanted)
            : $view;
    }

    /** @param array<string, Setting> $table */
    private static function shown(
        SettingSet $is,
        SettingSet $defaults,
        SettingSet $staged,
        array $table,
        ShownSettings $which,
        string $group,
        string $search,
        Words $words,
        string $wanted,
    ): self {
        $groups = $of = $ranges = [];
        $different = $shown = 0;
        foreach (array_intersect_key($table, $is->toArray()) as $name => $setting) {
            $differs = !Setting::same($defaults[$name] ?? $setting->default, $is[$name] ?? $setting->default);
            $different += $differs ? 1 : 0;
            $of[$setting->group->value] = true;
            $shows = match ($which) {
                ShownSettings::All => true,
                ShownSettings::Different => $differs || isset($staged[$name]),
                ShownSettings::Staged => isset($staged[$name]),
            };
            if ($shows && \in_array($group, ['', $setting->group->value], true) && self::has($setting, $search, $words)) {
                ++$shown;
                $value = $is[$name] ?? $setting->default;
                $groups[$setting->group->value][] = ['setting' => $setting, 'value' => $value, 'differs' => $differs];
                $range = [] === $setting->ranges ? null : $setting->ranges[array_key_last($setting->ranges)];
                if (null !== $range) {
                    $ranges[$name] = ['low' => (float) $range[0], 'high' => (float) $range[1]];
                }
            }
        }

        return new self($groups, $is, $staged, $different, $shown, $which, $search, $group, array_keys($of), $wanted, $ranges);
    }

    /** How many there are. */
    public function total(): int
    {
        return \count($this->settings);
    }

    public function narrowed(): bool
    {
        return '' !== $this->words || '' !== $this->group || ShownSettings::Staged === $this->which;
    }

    /** @return list<ShownSettings> */
    public function choices(): array
    {
        return ShownSettings::cases();
    }

    /** Every word begins one of its name, or of what it is called. */
    private static function has(Setting $setting, string $search, Words $words): bool
    {
        if ('' === $search) {
            return true;
        }
        $said = "$setting->name {$words->label($setting)}";
        foreach (preg_split('~\s+~u', mb_strtolower($search), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            if (1 !== preg_match('~(?<![\p{L}\p{N}])'.preg_quote($word, '~').'~iu', $said)) {
                return false;
            }
        }

        return true;
    }
}
