<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;

/** All settings of the flight-controller firmware, of every version, drawn from one declared table; those of its ESCs are known by name. */
final class Catalogue
{
    /** The newest names; what computes on settings first carries them here. */
    public const CURRENT = '26.06';

    /** @var array<string, Setting>|null laid out when first asked for: many a request never asks */
    private ?array $settings = null;

    /** @var array<string, array<string, Setting>> by release, as they were asked for */
    private array $of = [];

    /** @var array<string, SettingSet> by release */
    private array $defaults = [];

    private function __construct()
    {
    }

    public static function loam(): self
    {
        return new self();
    }

    /** @return array<string, Setting> by name, in the order of the table */
    public function all(): array
    {
        if (null === $this->settings) {
            $this->settings = [];
            foreach (LoamTable::rows() as $setting) {
                $this->settings[$setting->name] = $setting;
            }
        }

        return $this->settings;
    }

    /** @return array<string, Setting> */
    public function of(Version $version): array
    {
        return $this->of[$version->toString()] ??= array_filter($this->all(), static fn (Setting $s): bool => $s->existsIn($version));
    }

    public function has(string $name, Version $version): bool
    {
        return EscTable::owns($name)
            ? null !== EscTable::named($name)
            : isset($this->of($version)[$name]);
    }

    /** @throws SettingError when no version, or not this one, has it */
    public function get(string $name, Version $version): Setting
    {
        $setting = $this->all()[$name] ?? (EscTable::named($name) ?? throw SettingError::unknown($name));
        if (!$setting->existsIn($version)) {
            throw SettingError::notIn($name, $version->toString());
        }

        return $setting;
    }

    public function defaults(Version $version): SettingSet
    {
        return $this->defaults[$version->toString()] ??= SettingSet::of(
            array_map(static fn (Setting $s): float|int|bool|string => $s->default, $this->of($version)),
        );
    }
}
