<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Firmware\Version;

/**
 * One row of the settings catalogue.
 *
 * A value is a float, an int, a bool, or a string (a choice, or a list of whole numbers written "1,2").
 */
final readonly class Setting
{
    public const NUMBER = 'number';
    public const WHOLE = 'whole';
    public const SWITCH = 'switch';
    public const CHOICE = 'choice';
    public const LIST = 'list';

    /**
     * @param self::NUMBER|self::WHOLE|self::SWITCH|self::CHOICE|self::LIST $type
     * @param list<string>                                                   $choices  for a choice
     * @param string                                                         $unit     as printed, '' for none
     * @param float                                                          $step     what one key press changes, and the grid that a value is rounded to
     * @param array<string, array{float, float}>                             $ranges   range from a version on, oldest first; for a list, of each entry
     * @param string|null                                                    $until    first version that no longer has it
     */
    public function __construct(
        public string $name,
        public string $type,
        public string $label,
        public string $group,
        public string $unit,
        public float|int|bool|string $default,
        public array $ranges,
        public float $step,
        public array $choices,
        public string $since,
        public ?string $until,
        public bool $restart,
        public string $help,
    ) {
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
            self::NUMBER, self::WHOLE => $this->checkNumber($given, $version),
            self::SWITCH => match (true) {
                \is_bool($given) => $given,
                \in_array($given, ['1', 1, 'true', 'on', 'yes'], true) => true,
                \in_array($given, ['0', 0, 'false', 'off', 'no', ''], true) => false,
                default => throw SettingError::at($this->name, self::shown($given).' is neither on nor off'),
            },
            self::CHOICE => \is_string($given) && \in_array($given, $this->choices, true)
                ? $given
                : throw SettingError::at($this->name, self::shown($given).' is none of '.implode(', ', $this->choices)),
            self::LIST => $this->checkList($given, $version),
        };
    }

    private function checkNumber(mixed $given, Version $version): float|int
    {
        if (\is_string($given)) {
            $given = str_replace(',', '.', trim($given));
        }
        if (!\is_int($given) && !\is_float($given) && !(\is_string($given) && is_numeric($given))) {
            throw SettingError::at($this->name, self::shown($given).' is not a number');
        }
        $value = (float) $given;
        [$low, $high] = $this->range($version);
        if (!is_finite($value) || $value < $low - 1e-9 || $value > $high + 1e-9) {
            throw SettingError::at(
                $this->name,
                \sprintf('%s lies outside %s to %s%s', self::shown($given), $low, $high, '' === $this->unit ? '' : " $this->unit"),
            );
        }
        if (self::WHOLE === $this->type) {
            return abs($value - round($value)) < 1e-9
                ? (int) round($value)
                : throw SettingError::at($this->name, self::shown($given).' is not a whole number');
        }

        return round(round($value / $this->step) * $this->step, $this->digits());
    }

    private function checkList(mixed $given, Version $version): string
    {
        if (\is_array($given)) {
            $given = implode(',', array_map(static fn (mixed $v): string => \is_scalar($v) ? (string) $v : '?', $given));
        }
        if (!\is_scalar($given)) {
            throw SettingError::at($this->name, self::shown($given).' is not a list of whole numbers such as 1,2');
        }
        [$low, $high] = $this->range($version);
        $entries = [];
        foreach (array_filter(array_map('trim', explode(',', (string) $given)), static fn (string $e): bool => '' !== $e) as $entry) {
            if (1 !== preg_match('~^\d{1,6}$~', $entry) || (int) $entry < $low || (int) $entry > $high) {
                throw SettingError::at($this->name, "“{$entry}” is not a whole number from $low to $high");
            }
            $entries[(int) $entry] = true;
        }
        ksort($entries);

        return implode(',', array_keys($entries));
    }

    private static function shown(mixed $given): string
    {
        return \is_bool($given)
            ? ($given
                ? 'true'
                : 'false')
            : (\is_scalar($given)
                ? '“'.mb_strimwidth((string) $given, 0, 40, '…').'”'
                : 'a '.get_debug_type($given));
    }

    /** Whether two values of a setting are the same; a whole number is the same as its float. */
    public static function same(float|int|bool|string $a, float|int|bool|string $b): bool
    {
        return \is_bool($a) || \is_bool($b) || \is_string($a) || \is_string($b) ? $a === $b : abs($a - $b) < 1e-9;
    }
}
