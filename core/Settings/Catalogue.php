<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Firmware\Version;

/** All settings of the flight-controller firmware, of every version; drawn from one declared table. */
final readonly class Catalogue
{
    /** The newest names; what computes on settings first carries them here. */
    public const CURRENT = '4.3.0';

    /** @param array<string, Setting> $settings */
    private function __construct(private array $settings)
    {
    }

    public static function loam(): self
    {
        $settings = [];
        foreach (LoamTable::rows() as $setting) {
            $settings[$setting->name] = $setting;
        }

        return new self($settings);
    }

    /** @return array<string, Setting> by name, in the order of the table */
    public function all(): array
    {
        return $this->settings;
    }

    /** @return array<string, Setting> */
    public function of(Version $version): array
    {
        return array_filter($this->settings, static fn (Setting $s): bool => $s->existsIn($version));
    }

    public function has(string $name, Version $version): bool
    {
        return isset($this->settings[$name]) && $this->settings[$name]->existsIn($version);
    }

    /** @throws SettingError when no version, or not this one, has it */
    public function get(string $name, Version $version): Setting
    {
        $setting = $this->settings[$name] ?? throw SettingError::at($name, 'there is no such setting');
        if (!$setting->existsIn($version)) {
            throw SettingError::at($name, 'Loam '.$version->toString().' does not have it');
        }

        return $setting;
    }

    /** @return array<string, float|int|bool|string> */
    public function defaults(Version $version): array
    {
        return array_map(static fn (Setting $s): float|int|bool|string => $s->default, $this->of($version));
    }
}
