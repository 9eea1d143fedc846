<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\Card;

/**
 * One setting, or a group that is scaled by one factor, varied in steps; what it stands at now is flown first and last, so that drift
 * shows.
 */
final readonly class SeriesPlan
{
    public const MOST_STEPS = 9;

    /** What stands for the setting where none is varied: something on the craft is replaced. */
    public const REPLACED = 'replaced';

    /**
     * @param list<string> $settings the first is the one whose value names a step; the others are scaled with it
     * @param list<float>  $values   of the first, by rising value
     * @param float        $baseline what it stands at
     */
    private function __construct(public array $settings, public array $values, public float $baseline, public Card $card)
    {
    }

    /**
     * @param list<string> $settings
     *
     * @throws SeriesError where it cannot be
     */
    public static function of(SettingSet $now, array $settings, float $from, float $to, int $steps, Card $card): self
    {
        if ([] === $settings) {
            throw SeriesError::because(SeriesFlaw::NothingVaried);
        }
        foreach ($settings as $name) {
            if (!$now->has($name) || !is_numeric($now[$name])) {
                throw SeriesError::because(SeriesFlaw::NoNumber, setting: $name);
            }
            // From nought nothing is scaled: then all stand at nought, and get the same.
            if (\count($settings) > 1 && $now->number($name) <= 0 && $now->number($settings[0]) > 0) {
                throw SeriesError::because(SeriesFlaw::NothingToScale, setting: $name);
            }
        }
        if ($steps < 2 || $steps > self::MOST_STEPS) {
            throw SeriesError::because(SeriesFlaw::Steps, most: self::MOST_STEPS);
        }
        if ($from === $to) {
            throw SeriesError::because(SeriesFlaw::NoRange);
        }
        [$low, $high] = [min($from, $to), max($from, $to)];
        $values = [];
        for ($i = 0; $i < $steps; ++$i) {
            $values[] = round($low + (($high - $low) * $i) / ($steps - 1), 4);
        }

        return new self($settings, $values, $now->number($settings[0]), $card);
    }

    /**
     * Parts of one kind, one after the other.
     *
     * @throws SeriesError where there is nothing to compare
     */
    public static function ofParts(int $variants, Card $card): self
    {
        return $variants < 2 || $variants > self::MOST_STEPS
            ? throw SeriesError::because(SeriesFlaw::Variants, most: self::MOST_STEPS)
            : new self([self::REPLACED], array_map('floatval', range(1, $variants)), 1.0, $card);
    }

    /**
     * @param list<string> $settings
     * @param list<float>  $values
     */
    public static function kept(array $settings, array $values, float $baseline, Card $card): self
    {
        return new self($settings, $values, $baseline, $card);
    }

    /** Whether parts are compared, not settings: its values count them, from 1. */
    public function isOfParts(): bool
    {
        return self::REPLACED === $this->settings[0];
    }

    /** @return list<float> what is flown, in order: the baseline first and last; of parts, each once, as nobody screws them back for it */
    public function flights(): array
    {
        if ($this->isOfParts()) {
            return $this->values;
        }
        $between = array_values(array_filter($this->values, fn (float $v): bool => !self::same($v, $this->baseline)));

        return [$this->baseline, ...$between, $this->baseline];
    }

    /**
     * The settings of one flight.
     *
     * @param SettingSet $base of before the series
     *
     * @return array<string, float>
     */
    public function at(float $value, SettingSet $base): array
    {
        $first = $base->number($this->settings[0]);
        $set = [];
        foreach ($this->settings as $i => $name) {
            $set[$name] = 0 === $i || $first <= 0 ? $value : round(($base->number($name) * $value) / $first, 3);
        }

        return $set;
    }

    public static function same(float $a, float $b): bool
    {
        return abs($a - $b) <= 1e-6 + 0.004 * max(abs($a), abs($b));
    }
}
