<?php

declare(strict_types=1);

namespace Ortholex\Core\Fact;

/** Reads values of a known shape out of data that was kept as JSON; what is not of the shape is refused, with its path. */
final readonly class Stored
{
    /** @param array<mixed> $data */
    private function __construct(private array $data, private string $path)
    {
    }

    /** @param array<mixed> $data */
    public static function of(array $data): self
    {
        return new self($data, '');
    }

    /** @return array<mixed> */
    public function all(): array
    {
        return $this->data;
    }

    public function has(string $key): bool
    {
        return isset($this->data[$key]);
    }

    /** @throws StoredDataUnreadable */
    public function number(string $key): float
    {
        return $this->optional($key) ?? throw StoredDataUnreadable::at($this->at($key), 'a number');
    }

    /** @throws StoredDataUnreadable when there is something else than a number */
    public function optional(string $key): ?float
    {
        $value = $this->data[$key] ?? null;
        if (null === $value) {
            return null;
        }

        return \is_int($value) || \is_float($value) ? (float) $value : throw StoredDataUnreadable::at($this->at($key), 'a number');
    }

    /** @throws StoredDataUnreadable */
    public function whole(string $key): int
    {
        return (int) $this->number($key);
    }

    /** @throws StoredDataUnreadable */
    public function text(string $key): string
    {
        $value = $this->data[$key] ?? null;

        return \is_string($value) ? $value : throw StoredDataUnreadable::at($this->at($key), 'a text');
    }

    public function optionalText(string $key): ?string
    {
        return \is_string($this->data[$key] ?? null) ? $this->data[$key] : null;
    }

    /** @throws StoredDataUnreadable */
    public function time(string $key): \DateTimeImmutable
    {
        return $this->optionalTime($key) ?? throw StoredDataUnreadable::at($this->at($key), 'a time');
    }

    /** @throws StoredDataUnreadable when there is a text that is no time */
    public function optionalTime(string $key): ?\DateTimeImmutable
    {
        $text = $this->optionalText($key);
        if (null === $text) {
            return null;
        }

        return \DateTimeImmutable::createFromFormat(\DATE_ATOM, $text) ?: throw StoredDataUnreadable::at($this->at($key), 'a time');
    }

    public function flag(string $key): ?bool
    {
        return \is_bool($this->data[$key] ?? null) ? $this->data[$key] : null;
    }

    /**
     * @template T of \BackedEnum
     *
     * @param class-string<T> $of
     *
     * @return T
     *
     * @throws StoredDataUnreadable
     */
    public function choice(string $key, string $of): \BackedEnum
    {
        return $of::tryFrom($this->text($key)) ?? throw StoredDataUnreadable::at($this->at($key), 'one of '.$of);
    }

    /**
     * @return array<mixed>
     *
     * @throws StoredDataUnreadable
     */
    public function map(string $key): array
    {
        $value = $this->data[$key] ?? null;

        return \is_array($value) ? $value : throw StoredDataUnreadable::at($this->at($key), 'a map');
    }

    /** @throws StoredDataUnreadable */
    public function part(string $key): self
    {
        return new self($this->map($key), $this->at($key));
    }

    /** @throws StoredDataUnreadable */
    public function optionalPart(string $key): ?self
    {
        return isset($this->data[$key]) ? $this->part($key) : null;
    }

    /**
     * @return array<string, self> by key
     *
     * @throws StoredDataUnreadable
     */
    public function parts(string $key): array
    {
        $parts = [];
        foreach ($this->map($key) as $name => $one) {
            $at = $this->at("$key.$name");
            $parts[(string) $name] = \is_array($one) ? new self($one, $at) : throw StoredDataUnreadable::at($at, 'a map');
        }

        return $parts;
    }

    /**
     * @return list<self>
     *
     * @throws StoredDataUnreadable
     */
    public function rows(string $key): array
    {
        return array_values($this->parts($key));
    }

    /**
     * @return list<float>
     *
     * @throws StoredDataUnreadable
     */
    public function numbers(string $key): array
    {
        $numbers = [];
        foreach ($this->map($key) as $i => $value) {
            $numbers[] = \is_int($value) || \is_float($value)
                ? (float) $value
                : throw StoredDataUnreadable::at($this->at("$key.$i"), 'a number');
        }

        return $numbers;
    }

    /**
     * @return array{float, float}|null
     *
     * @throws StoredDataUnreadable
     */
    public function pair(string $key): ?array
    {
        if (!isset($this->data[$key])) {
            return null;
        }
        $numbers = $this->numbers($key);

        return 2 === \count($numbers) ? [$numbers[0], $numbers[1]] : throw StoredDataUnreadable::at($this->at($key), 'two numbers');
    }

    /**
     * @return list<string>
     *
     * @throws StoredDataUnreadable
     */
    public function texts(string $key): array
    {
        $texts = [];
        foreach ($this->map($key) as $i => $value) {
            $texts[] = \is_string($value) ? $value : throw StoredDataUnreadable::at($this->at("$key.$i"), 'a text');
        }

        return $texts;
    }

    private function at(string $key): string
    {
        return '' === $this->path ? $key : "$this->path.$key";
    }
}
