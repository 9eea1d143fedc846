<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/**
 * Values of settings by name, as they stand together on a craft, in a snapshot or in the head of a log; never changed, only
 * made anew. Read like an array, or by type with a value for where there is none.
 *
 * @implements \IteratorAggregate<string, float|int|bool|string>
 * @implements \ArrayAccess<string, float|int|bool|string>
 */
final readonly class SettingSet implements \IteratorAggregate, \ArrayAccess, \Countable, \JsonSerializable
{
    /** Output pads that a board can have. */
    public const PADS = 8;

    private const LOOP_HZ = 2000.0;

    /** @param array<string, float|int|bool|string> $values */
    private function __construct(private array $values)
    {
    }

    /** @param array<string, float|int|bool|string> $values by name */
    public static function of(array $values): self
    {
        return new self($values);
    }

    public static function none(): self
    {
        return new self([]);
    }

    public function isEmpty(): bool
    {
        return [] === $this->values;
    }

    public function has(string $name): bool
    {
        return isset($this->values[$name]);
    }

    /** A number, or a choice that is one; the default where there is none. */
    public function number(string $name, float $default = 0.0): float
    {
        $value = $this->values[$name] ?? null;

        return \is_bool($value) || !is_numeric($value) ? $default : (float) $value;
    }

    public function whole(string $name, int $default = 0): int
    {
        return (int) $this->number($name, (float) $default);
    }

    /** @return array{float, float} the lower end of a band and its higher one */
    public function band(string $name, float $low, float $high): array
    {
        return 1 === preg_match('~^(\d+),(\d+)$~', $this->text($name), $m) ? [(float) $m[1], (float) $m[2]] : [$low, $high];
    }

    public function flag(string $name): bool
    {
        return true === ($this->values[$name] ?? false);
    }

    public function text(string $name, string $default = ''): string
    {
        $value = $this->values[$name] ?? $default;

        return \is_bool($value) ? $default : (string) $value;
    }

    /** How often rates are controlled, Hz. */
    public function loopHz(): float
    {
        return $this->number('motors.loop_rate_hz', self::LOOP_HZ);
    }

    /** @return array<int, string> by output pad: the place or part that it drives; pads that drive nothing are left out */
    public function drives(): array
    {
        $drives = [];
        for ($pad = 1; $pad <= self::PADS; ++$pad) {
            $what = $this->text("pad.$pad.drives", PadLoad::None->value);
            if (PadLoad::None->value !== $what) {
                $drives[$pad] = $what;
            }
        }

        return $drives;
    }

    /** @param self|array<string, float|int|bool|string> $values that stand in place of mine, or beside them */
    public function with(self|array $values): self
    {
        return new self(array_merge($this->values, $values instanceof self ? $values->values : $values));
    }

    /** @param \Closure(string): bool $is told a name */
    public function where(\Closure $is): self
    {
        return new self(array_filter($this->values, $is, \ARRAY_FILTER_USE_KEY));
    }

    /** Mine of the names that the other has. */
    public function among(self $other): self
    {
        return new self(array_intersect_key($this->values, $other->values));
    }

    /** Mine of the names that the other has not. */
    public function except(self $other): self
    {
        return new self(array_diff_key($this->values, $other->values));
    }

    /** @return list<string> */
    public function names(): array
    {
        return array_keys($this->values);
    }

    /** @return array<string, float|int|bool|string> */
    public function toArray(): array
    {
        return $this->values;
    }

    /** @return \ArrayIterator<string, float|int|bool|string> */
    public function getIterator(): \ArrayIterator
    {
        return new \ArrayIterator($this->values);
    }

    public function count(): int
    {
        return \count($this->values);
    }

    /** @return \stdClass|array<string, float|int|bool|string> */
    public function jsonSerialize(): \stdClass|array
    {
        return [] === $this->values ? new \stdClass() : $this->values;
    }

    public function offsetExists(mixed $offset): bool
    {
        return isset($this->values[$offset]);
    }

    public function offsetGet(mixed $offset): float|int|bool|string
    {
        return $this->values[$offset] ?? throw SetIsFixed::noSuch($offset);
    }

    public function offsetSet(mixed $offset, mixed $value): never
    {
        throw SetIsFixed::cannotChange();
    }

    public function offsetUnset(mixed $offset): never
    {
        throw SetIsFixed::cannotChange();
    }
}
