<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

/** Reads values out of stored analysis results, which are plain nested data. */
final readonly class Dig
{
    /**
     * @param array<mixed> $data
     *
     * @return array<mixed>
     */
    public static function map(array $data, string ...$path): array
    {
        foreach ($path as $key) {
            $data = $data[$key] ?? [];
            if (!\is_array($data)) {
                return [];
            }
        }

        return $data;
    }

    /** @param array<mixed> $data */
    public static function number(array $data, string $key): ?float
    {
        return is_numeric($data[$key] ?? null) ? (float) $data[$key] : null;
    }

    /** @param array<mixed> $data */
    public static function text(array $data, string $key): string
    {
        return \is_string($data[$key] ?? null) ? $data[$key] : '';
    }

    /**
     * @param array<mixed> $data
     *
     * @return list<string>
     */
    public static function texts(array $data, string $key): array
    {
        return array_values(array_filter(\is_array($data[$key] ?? null) ? $data[$key] : [], 'is_string'));
    }

    /**
     * @param array<mixed> $data
     *
     * @return list<float>
     */
    public static function numbers(array $data, string $key): array
    {
        return array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v : 0.0, array_values(\is_array($data[$key] ?? null) ? $data[$key] : []));
    }
}
