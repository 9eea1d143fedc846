<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

/** A setting cannot take a value; says which setting, what was given and what is expected. */
final class SettingError extends \InvalidArgumentException
{
    private function __construct(public readonly string $setting, public readonly string $reason)
    {
        parent::__construct("$setting: $reason.");
    }

    public static function at(string $setting, string $reason): self
    {
        return new self($setting, $reason);
    }
}
