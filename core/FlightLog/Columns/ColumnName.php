<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Columns;

/** The name of a column cut into its words, and what they say: an axis, a term, a number, a place, quantities. */
final readonly class ColumnName
{
    private const ALONG = ['front', 'rear', 'back', 'fr', 'fl', 'rr', 'rl', 'br', 'bl'];
    private const PLACES = [...self::ALONG, 'left', 'right'];

    /** Beside three axes. */
    public const FOURTH = 3;

    /** Numbers up to this can stand for an axis. */
    private const LAST_AXIS = 2;

    /**
     * @param list<string> $words
     * @param string|null  $axis     that a word names
     * @param string|null  $on       the same, or by a number
     * @param string|null  $term     p, i, d or ff
     * @param int|null     $nth      its number among its like, from 0 on
     * @param float        $share    of the words that are explained
     */
    private function __construct(
        public array $words,
        public ?string $axis,
        public ?string $on,
        public ?string $term,
        public ?int $number,
        public ?int $nth,
        public float $share,
    ) {
    }

    /**
     * @param bool $letters whether the log names rates by the letters of flight mechanics
     * @param int  $first   number of the first of its like: 0, or 1
     */
    public static function of(string $name, bool $letters, int $first = 0): self
    {
        // Figures in a unit, as in “(0.1 deg/s)”, number nothing.
        $words = self::words(self::bare($name));
        $numbers = array_filter($words, 'ctype_digit');
        $number = [] === $numbers ? null : (int) end($numbers);
        $nth = null === $number ? null : $number - $first;
        $axis = self::last($words, Vocabulary::AXES);
        $term = self::term($words);
        $letter = array_values(array_intersect($words, array_keys(Vocabulary::LETTERS)))[0] ?? null;
        $byLetter = $letters && null === $axis && null !== $letter && ([$letter] === $words || self::saysRotation($words));
        if ($byLetter) {
            $axis = Vocabulary::LETTERS[$letter];
            $term = null;
        }
        $known = self::known();
        $explained = array_filter(
            $words,
            static fn (string $w): bool => ctype_digit($w) || isset($known[$w]) || ($byLetter && $w === $letter),
        );
        $byNumber = null === $axis && null !== $nth && $nth <= self::LAST_AXIS ? array_keys(Vocabulary::AXES)[$nth] ?? null : null;

        return new self($words, $axis, $axis ?? $byNumber, $term, $number, $nth, \count($explained) / max(1, \count($words)));
    }

    /** A name without a unit in brackets that has a figure of its own. */
    public static function bare(string $name): string
    {
        return (string) preg_replace('~[(\[{]\s*[\d.,]+\s*(?:deg|rad|dps|°)[^)\]}]*[)\]}]~iu', ' ', $name);
    }

    /** @param list<string> $list */
    public function has(array $list): bool
    {
        return [] !== array_intersect($this->words, $list);
    }

    public function says(string $quantity): bool
    {
        return $this->has(Vocabulary::QUANTITIES[$quantity]);
    }

    public function isRaw(): bool
    {
        return $this->has(Vocabulary::RAW);
    }

    /** Marked as filtered, and not only within a word for the contrary. */
    public function isFiltered(): bool
    {
        return $this->has(Vocabulary::FILTERED) && !$this->has(Vocabulary::UNFILTERED);
    }

    /** How sure the axis is. */
    public function sure(): float
    {
        return null === $this->axis ? 0.86 : 0.96;
    }

    /** Place of a motor, or its number. */
    public function motor(): string
    {
        return self::place($this->words) ?? (string) ($this->number ?? 0);
    }

    /** A place, and no other word. */
    public function isPlace(): bool
    {
        return null !== self::place($this->words) && [] === array_diff($this->words, self::PLACES);
    }

    public function hasMotor(): bool
    {
        return null !== $this->number || null !== self::place($this->words);
    }

    /** @return list<string> lower case */
    public static function words(string $name): array
    {
        $name = (string) preg_replace(
            ['~([a-z])([A-Z])~', '~([A-Z])([A-Z][a-z])~', '~([A-Za-zµ])(\d)~', '~(\d)([A-Za-z])~'],
            '$1 $2',
            $name,
        );
        $words = preg_split('~[^A-Za-z0-9µ]+~u', mb_strtolower($name), -1, \PREG_SPLIT_NO_EMPTY);
        $out = [];
        foreach (false === $words ? [] : $words as $word) {
            // A volt's letter grown onto its battery says nothing more.
            if (1 === preg_match('~^v(bat\w*)$~', $word, $m)) {
                $out[] = $m[1];
                continue;
            }
            // Words grown together with their axis or number of kind, as in "gyrox".
            if (
                1 ===
                preg_match('~^(gyro|gyr|acc|accel|motor|rate|setpoint|omega|cmd)(roll|pitch|yaw|x|y|z|raw|filt|filtered)$~', $word, $m)
            ) {
                $out[] = $m[1];
                $out[] = $m[2];
            } else {
                $out[] = $word;
            }
        }

        return $out;
    }

    /**
     * @param list<string>                $words
     * @param array<string, list<string>> $lists
     */
    private static function last(array $words, array $lists): ?string
    {
        $found = null;
        foreach ($lists as $is => $list) {
            if ([] !== array_intersect($words, $list)) {
                $found = $is;
            }
        }

        return $found;
    }

    /**
     * A lone letter is a term only beside a word of control, or before an axis.
     *
     * @param list<string> $words
     */
    private static function term(array $words): ?string
    {
        $found = null;
        foreach (Vocabulary::TERMS as $term => $list) {
            $beside = ['pid', 'term', 'axis', 'control', ...$list];
            $found = [] !== array_intersect($words, $list) && [] !== array_intersect($words, $beside) ? $term : $found;
        }

        return $found;
    }

    /** @param list<string> $words */
    private static function saysRotation(array $words): bool
    {
        return [] !== array_intersect($words, [
            ...Vocabulary::QUANTITIES['setpoint'],
            ...Vocabulary::QUANTITIES['rate'],
            ...Vocabulary::RAW,
            ...Vocabulary::FILTERED,
            ...Vocabulary::ACTUAL,
        ]);
    }

    /** @return array<string, int> every word that means something or nothing */
    private static function known(): array
    {
        return array_flip(
            array_merge(
                Vocabulary::ACTUAL,
                Vocabulary::NEUTRAL,
                Vocabulary::RAW,
                Vocabulary::FILTERED,
                ...array_values(Vocabulary::AXES),
                ...array_values(Vocabulary::QUANTITIES),
                ...array_values(Vocabulary::TERMS),
            ),
        );
    }

    /** @param list<string> $words */
    private static function place(array $words): ?string
    {
        $along = array_intersect($words, self::ALONG);
        $across = array_values(array_intersect($words, ['left', 'right']));
        $first = reset($along);
        if (false === $first) {
            return $across[0] ?? null;
        }
        if (2 === \strlen($first)) {
            return ('f' === $first[0] ? 'front' : 'rear').'_'.('r' === $first[1] ? 'right' : 'left');
        }

        return ('f' === $first[0] ? 'front' : 'rear').(isset($across[0]) ? "_$across[0]" : '');
    }
}
