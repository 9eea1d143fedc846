<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use Ortholex\Bench\Esc\FirstClocks;
use Ortholex\Core\Settings\Migration\FormerNames;

/** Settings and ESC hardware get the names and measures of now, wherever a book keeps them. */
final class Version20261125000004 extends AbstractMigration
{
    /** Where whole sets of settings are kept. */
    private const SETS = ['craft' => 'settings', 'snapshot' => 'settings', 'log' => 'settings'];

    public function getDescription(): string
    {
        return 'Settings and ESC hardware under the names and measures of now';
    }

    public function up(Schema $schema): void
    {
        foreach (self::SETS as $table => $column) {
            foreach ($this->connection->fetchAllKeyValue("SELECT id, $column FROM $table") as $id => $json) {
                $this->addSql("UPDATE $table SET $column = ? WHERE id = ?", [self::json(FormerNames::carry(self::map($json))), $id]);
            }
        }
        $this->staged();
        foreach ($this->connection->fetchAllKeyValue('SELECT id, items FROM change_entry') as $id => $json) {
            $this->addSql('UPDATE change_entry SET items = ? WHERE id = ?', [self::json(self::items(self::map($json))), $id]);
        }
        foreach ($this->connection->fetchAllKeyValue('SELECT id, escs FROM craft') as $id => $json) {
            $escs = array_map(static fn (mixed $e): mixed => \is_array($e) ? self::esc($e) : $e, self::map($json));
            $this->addSql('UPDATE craft SET escs = ? WHERE id = ?', [self::json($escs), $id]);
        }
    }

    /** What is staged waits by craft; names that became one leave one. */
    private function staged(): void
    {
        $byCraft = [];
        foreach ($this->connection->fetchAllAssociative('SELECT craft_id, name, value FROM staged_change ORDER BY id') as $row) {
            if (is_numeric($row['craft_id']) && \is_string($row['name']) && \is_string($row['value'])) {
                $byCraft[(int) $row['craft_id']][$row['name']] = json_decode($row['value'], true);
            }
        }
        if ([] === $byCraft) {
            return;
        }
        $this->addSql('DELETE FROM staged_change');
        foreach ($byCraft as $craft => $values) {
            foreach (FormerNames::carry($values) as $name => $value) {
                $this->addSql('INSERT INTO staged_change (craft_id, name, value) VALUES (?, ?, ?)', [$craft, $name, self::json($value)]);
            }
        }
    }

    /**
     * An entry names each setting with what it was and what it became: both are carried as whole sets.
     *
     * @param array<mixed> $items
     *
     * @return list<array<string, mixed>>
     */
    private static function items(array $items): array
    {
        $from = $to = [];
        foreach ($items as $item) {
            if (\is_array($item) && \is_string($item['name'] ?? null)) {
                $from[$item['name']] = $item['from'] ?? null;
                $to[$item['name']] = $item['to'] ?? null;
            }
        }
        [$from, $to] = [FormerNames::carry($from), FormerNames::carry($to)];

        return array_map(
            static fn (string $name): array => ['name' => $name, 'from' => $from[$name] ?? null, 'to' => $to[$name] ?? null],
            array_keys($to),
        );
    }

    /**
     * @param array<mixed> $esc
     *
     * @return array<mixed>
     */
    private static function esc(array $esc): array
    {
        foreach (['clock_mhz' => FirstClocks::mhz(...), 'switching_khz' => FirstClocks::khz(...)] as $key => $now) {
            if (\is_int($esc[$key] ?? null)) {
                $esc[$key] = $now($esc[$key]);
            }
        }

        return $esc;
    }

    /** @return array<mixed> */
    private static function map(mixed $json): array
    {
        $map = json_decode(\is_string($json) ? $json : '', true);

        return \is_array($map) ? $map : [];
    }

    private static function json(mixed $value): string
    {
        return json_encode($value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE);
    }
}
