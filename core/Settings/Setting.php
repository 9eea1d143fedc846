<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Overlay\Layouts;
use Ortholex\Core\Overlay\OverlayError;
use Ortholex\Core\Switches\OnIn;
use Ortholex\Core\Switches\ZoneError;

/**
 * One row of the settings catalogue.
 *
 * A value is a float, an int, a bool, or a string (a choice, or a list of whole numbers written "1,2").
 */
final readonly class Setting
{
    /** Release of Loam that the catalogue begins with. */
    public const FIRST = '25.02';

    /**
     * @param string                             $unit    as printed, '' for none
     * @param array<string, array{float, float}> $ranges  range from a version on, oldest first; for integers, of each entry
     * @param float                              $step    what one key press changes, and the grid that a value is rounded to
     * @param list<string>                       $choices for a choice
     * @param string|null                        $until   first version that no longer has it
     * @param bool                               $restart whether the board has to restart for it
     */
    private function __construct(
        public string $name,
        public SettingType $type,
        public SettingGroup $group,
        public string $unit,
        public float|int|bool|string $default,
        public array $ranges,
        public float $step,
        public array $choices,
        public string $since,
        public ?string $until,
        public bool $restart,
    ) {
    }

    public static function number(
        string $name,
        SettingGroup $group,
        string $unit,
        float $default,
        float $low,
        float $high,
        float $step,
        bool $restart = false,
        string $since = self::FIRST,
        ?string $until = null,
    ): self {
        $ranges = [self::FIRST => [$low, $high]];

        return new self($name, SettingType::Number, $group, $unit, $default, $ranges, $step, [], $since, $until, $restart);
    }

    public static function whole(
        string $name,
        SettingGroup $group,
        int $default,
        int $low,
        int $high,
        ?string $until = null,
        string $unit = '',
    ): self {
        $ranges = [self::FIRST => [(float) $low, (float) $high]];

        return new self($name, SettingType::Whole, $group, $unit, $default, $ranges, 1, [], self::FIRST, $until, false);
    }

    public static function flag(string $name, SettingGroup $group, bool $default, bool $restart = false, ?string $until = null): self
    {
        return new self($name, SettingType::Flag, $group, '', $default, [], 1, [], self::FIRST, $until, $restart);
    }

    /** @param list<string> $choices */
    public static function choice(
        string $name,
        SettingGroup $group,
        string $default,
        array $choices,
        bool $restart = false,
        string $unit = '',
        string $since = self::FIRST,
    ): self {
        return new self($name, SettingType::Choice, $group, $unit, $default, [], 1, $choices, $since, null, $restart);
    }

    /** A list of whole numbers, each from low to high. */
    public static function integers(string $name, SettingGroup $group, string $unit, string $default, int $low, int $high): self
    {
        $ranges = [self::FIRST => [(float) $low, (float) $high]];

        return new self($name, SettingType::Integers, $group, $unit, $default, $ranges, 1, [], self::FIRST, null, false);
    }

    /** Zones of channels that turn something on. */
    public static function zones(string $name, SettingGroup $group): self
    {
        return new self($name, SettingType::Zones, $group, '', '', [], 1, [], self::FIRST, null, false);
    }

    /** Where an item of the overlay stands, by layout. */
    public static function cells(string $name, SettingGroup $group): self
    {
        return new self($name, SettingType::Cells, $group, '', '', [], 1, [], self::FIRST, null, false);
    }

    /** When each layout of the overlay is shown. */
    public static function times(string $name, SettingGroup $group, string $default): self
    {
        return new self($name, SettingType::Times, $group, '', $default, [], 1, [], self::FIRST, null, false);
    }

    /** From one whole number to a higher one, both from low to high. */
    public static function band(string $name, SettingGroup $group, string $unit, string $default, int $low, int $high): self
    {
        $ranges = [self::FIRST => [(float) $low, (float) $high]];

        return new self($name, SettingType::Band, $group, $unit, $default, $ranges, 1, [], self::FIRST, null, false);
    }

    /** The same with another range from a version on. */
    public function within(float $low, float $high, string $since): self
    {
        return $this->with($this->name, [...$this->ranges, $since => [$low, $high]]);
    }

    /** The same under another name. */
    public function named(string $name): self
    {
        return $this->with($name, $this->ranges);
    }

    public function existsIn(Version $version): bool
    {
        return $version->hasReachedNumber($this->since) && (null === $this->until || !$version->hasReachedNumber($this->until));
    }

    /** @return array{float, float} lowest and highest value in a version */
    public function range(Version $version): array
    {
        $range = [-\INF, \INF];
        foreach ($this->ranges as $since => $limits) {
            if ($version->hasReachedNumber((string) $since)) {
                $range = $limits;
            }
        }

        return $range;
    }

    /** Decimals that the step calls for. */
    public function digits(): int
    {
        return $this->step >= 1 ? 0 : (int) max(0, ceil(-log10($this->step) - 1e-9));
    }

    /**
     * The value as this setting keeps it: of its type, on its grid, within its range.
     *
     * @throws SettingError naming the setting, what was given and what is expected
     */
    public function check(mixed $given, Version $version): float|int|bool|string
    {
        return match ($this->type) {
            SettingType::Number, SettingType::Whole => $this->checkNumber($given, $version),
            SettingType::Flag => match (true) {
                \is_bool($given) => $given,
                \in_array($given, ['1', 1, 'true', 'on', 'yes'], true) => true,
                \in_array($given, ['0', 0, 'false', 'off', 'no', ''], true) => false,
                default => throw SettingError::neitherOnNorOff($this->name, $given),
            },
            SettingType::Choice => (\is_string($given) || \is_int($given) || \is_float($given))
                && \in_array((string) $given, $this->choices, true)
                ? (string) $given
                : throw SettingError::noneOf($this->name, $given, $this->choices),
            SettingType::Integers => $this->checkList($given, $version),
            SettingType::Band => $this->checkBand($given, $version),
            SettingType::Zones => $this->checkZones($given),
            SettingType::Cells, SettingType::Times => $this->checkOverlay($given),
        };
    }

    private function checkNumber(mixed $given, Version $version): float|int
    {
        if (\is_string($given)) {
            $given = str_replace(',', '.', trim($given));
        }
        if (!\is_int($given) && !\is_float($given) && !(\is_string($given) && is_numeric($given))) {
            throw SettingError::notANumber($this->name, $given);
        }
        $value = (float) $given;
        [$low, $high] = $this->range($version);
        if (!is_finite($value) || $value < $low - 1e-9 || $value > $high + 1e-9) {
            throw SettingError::outside($this->name, $given, $low, $high, $this->unit);
        }
        if (SettingType::Whole === $this->type) {
            return abs($value - round($value)) < 1e-9
                ? (int) round($value)
                : throw SettingError::notWhole($this->name, $given);
        }

        return round(round($value / $this->step) * $this->step, $this->digits());
    }

    private function checkList(mixed $given, Version $version): string
    {
        if (\is_array($given)) {
            $given = implode(',', array_map(static fn (mixed $v): string => \is_scalar($v) ? (string) $v : '?', $given));
        }
        if (!\is_scalar($given)) {
            throw SettingError::notAList($this->name, $given);
        }
        [$low, $high] = $this->range($version);
        $entries = [];
        foreach (array_filter(array_map('trim', explode(',', (string) $given)), static fn (string $e): bool => '' !== $e) as $entry) {
            if (1 !== preg_match('~^\d{1,6}$~', $entry) || (int) $entry < $low || (int) $entry > $high) {
                throw SettingError::entryOutside($this->name, $entry, $low, $high);
            }
            $entries[(int) $entry] = true;
        }
        ksort($entries);

        return implode(',', array_keys($entries));
    }

    private function checkZones(mixed $given): string
    {
        try {
            return OnIn::parse(\is_string($given) ? $given : throw SettingError::notZones($this->name, $given, ''))->text();
        } catch (ZoneError $e) {
            throw SettingError::notZones($this->name, $given, $e->getMessage());
        }
    }

    private function checkOverlay(mixed $given): string
    {
        $text = \is_string($given) ? $given : throw SettingError::notAnOverlay($this->name, $given);
        try {
            return SettingType::Cells === $this->type ? Layouts::text(Layouts::cells($text)) : Layouts::timesText(Layouts::times($text));
        } catch (OverlayError) {
            throw SettingError::notAnOverlay($this->name, $given);
        }
    }

    private function checkBand(mixed $given, Version $version): string
    {
        // As a person writes it: 150 to 420, 150–420, 150, 420.
        $ends = \is_string($given) ? preg_replace('~\s*(?:–|-|to|…|\.\.)\s*~u', ',', trim($given)) ?? $given : $given;
        $kept = $this->checkList($ends, $version);

        return 2 === \count(explode(',', $kept)) ? $kept : throw SettingError::notABand($this->name, $given);
    }

    /** @param array<string, array{float, float}> $ranges */
    private function with(string $name, array $ranges): self
    {
        return new self(
            $name,
            $this->type,
            $this->group,
            $this->unit,
            $this->default,
            $ranges,
            $this->step,
            $this->choices,
            $this->since,
            $this->until,
            $this->restart,
        );
    }

    /** Whether two values of a setting are the same; a whole number is the same as its float. */
    public static function same(float|int|bool|string $a, float|int|bool|string $b): bool
    {
        return \is_bool($a) || \is_bool($b) || \is_string($a) || \is_string($b) ? $a === $b : abs($a - $b) < 1e-9;
    }
}
