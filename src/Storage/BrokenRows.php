<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\DBAL\Platforms\SQLitePlatform;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Mapping\ClassMetadata;

/** Rows of the book of which something cannot be read: which they are, and what of them it is. They are left as they are. */
final readonly class BrokenRows
{
    /** Columns by which people know a row, the first that it has. */
    private const KNOWN_BY = ['code', 'name', 'title', 'what'];

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<string> of all kinds, in words */
    public function all(): array
    {
        $words = [];
        foreach ($this->entities->getMetadataFactory()->getAllMetadata() as $of) {
            array_push($words, ...array_values(self::in($this->entities, $of)));
        }

        return $words;
    }

    /**
     * @param ClassMetadata<object> $of
     *
     * @return array<int, string> by id, in words
     */
    public static function in(EntityManagerInterface $entities, ClassMetadata $of): array
    {
        $tests = [];
        foreach ($of->fieldMappings as $field => $mapping) {
            $kept = $of->getReflectionClass()->getProperty($field)->getType();
            $isMap = SettingSetType::NAME === $mapping->type || ($kept instanceof \ReflectionNamedType && 'array' === $kept->getName());
            $test = self::test($of->getColumnName($field), $mapping->type, $mapping->enumType, $isMap);
            if (null !== $test) {
                $tests[$field] = $test;
            }
        }
        if ([] === $tests || !$entities->getConnection()->getDatabasePlatform() instanceof SQLitePlatform) {
            return [];
        }
        $known = array_values(array_intersect(self::KNOWN_BY, $of->getColumnNames()))[0] ?? $of->getSingleIdentifierColumnName();
        $craft = $of->hasAssociation('craft') ? '(SELECT name FROM craft WHERE craft.id = craft_id)' : 'NULL';
        $select = implode(', ', array_map(static fn (string $t, int $n): string => "$t AS t$n", $tests, range(0, \count($tests) - 1)));
        $rows = $entities->getConnection()->fetchAllAssociative(
            "SELECT {$of->getSingleIdentifierColumnName()} AS id, $known AS known, $craft AS craft, $select FROM {$of->getTableName()} ".
                'WHERE '.implode(' OR ', $tests),
        );
        $broken = [];
        foreach ($rows as $row) {
            $fields = array_filter(array_keys($tests), static fn (int $n): bool => (bool) $row["t$n"], \ARRAY_FILTER_USE_KEY);
            $kind = strtolower((string) preg_replace('~(?<=[a-z])[A-Z]~', ' $0', $of->getReflectionClass()->getShortName()));
            $what = \is_scalar($row['known']) ? mb_scrub((string) $row['known'], 'UTF-8') : '';
            $whose = \is_string($row['craft']) ? " of {$row['craft']}" : '';
            $broken[is_numeric($row['id']) ? (int) $row['id'] : 0] = "$kind “{$what}”$whose: ".implode(', ', $fields);
        }

        return $broken;
    }

    /** SQL that is true where a column holds what cannot be read; null for those that can always be. */
    private static function test(string $column, string $type, ?string $enum, bool $isMap): ?string
    {
        if (null !== $enum && is_subclass_of($enum, \BackedEnum::class)) {
            $cases = array_map(static fn (\BackedEnum $c): string => "'".str_replace("'", "''", (string) $c->value)."'", $enum::cases());

            return "($column IS NOT NULL AND $column NOT IN (".implode(', ', $cases).'))';
        }

        return match ($type) {
            Types::JSON, SettingSetType::NAME => "($column IS NOT NULL AND (NOT json_valid($column)".
                ($isMap ? " OR substr(ltrim($column), 1, 1) NOT IN ('[', '{')" : '').'))',
            Types::DATETIME_IMMUTABLE, Types::DATETIME_MUTABLE => "($column IS NOT NULL AND strftime('%s', $column) IS NULL)",
            default => null,
        };
    }
}
