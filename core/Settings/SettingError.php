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

    public static function unknown(string $setting): self
    {
        return new self($setting, 'there is no such setting');
    }

    public static function notIn(string $setting, string $release): self
    {
        return new self($setting, "Loam $release does not have it");
    }

    public static function notOnCraft(string $setting): self
    {
        return new self($setting, 'the craft has no such setting; link it first, or look whether its firmware knows it');
    }

    /** For what is decided above the catalogue. */
    public static function because(string $setting, string $reason): self
    {
        return new self($setting, $reason);
    }

    public static function neitherOnNorOff(string $setting, mixed $given): self
    {
        return new self($setting, self::shown($given).' is neither on nor off');
    }

    /** @param list<string> $choices */
    public static function noneOf(string $setting, mixed $given, array $choices): self
    {
        return new self($setting, self::shown($given).' is none of '.implode(', ', $choices));
    }

    public static function notANumber(string $setting, mixed $given): self
    {
        return new self($setting, self::shown($given).' is not a number');
    }

    public static function outside(string $setting, mixed $given, float $low, float $high, string $unit): self
    {
        return new self($setting, rtrim(\sprintf('%s lies outside %s to %s %s', self::shown($given), $low, $high, $unit)));
    }

    public static function notWhole(string $setting, mixed $given): self
    {
        return new self($setting, self::shown($given).' is not a whole number');
    }

    public static function notAList(string $setting, mixed $given): self
    {
        return new self($setting, self::shown($given).' is not a list of whole numbers such as 1,2');
    }

    public static function notABand(string $setting, mixed $given): self
    {
        return new self($setting, self::shown($given).' does not name a lower and a higher end, such as 150,420');
    }

    public static function entryOutside(string $setting, string $entry, float $low, float $high): self
    {
        return new self($setting, "“{$entry}” is not a whole number from $low to $high");
    }

    public static function notZones(string $setting, mixed $given, string $why): self
    {
        return new self($setting, '' === $why ? self::shown($given).' is no zone such as 5:1700-2200' : rtrim($why, '.'));
    }

    public static function notAnOverlay(string $setting, mixed $given): self
    {
        return new self(
            $setting,
            self::shown($given).' is none such as '.('overlay.layouts' === $setting ? '1:always 2:disarmed' : '1:2,3 2:10,0'),
        );
    }

    private static function shown(mixed $given): string
    {
        return match (true) {
            \is_bool($given) => $given ? 'true' : 'false',
            \is_scalar($given) => '“'.mb_strimwidth((string) $given, 0, 40, '…').'”',
            default => 'a '.get_debug_type($given),
        };
    }
}
