<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** A Commit is written down before its first byte; what is staged has a history; the record says how each change ended. */
final class Version20261129000001 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Journal of writing, steps of staging, and how changes ended';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            "CREATE TABLE staged_step (
                id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
                craft_id INTEGER NOT NULL REFERENCES craft (id),
                name VARCHAR(255) NOT NULL,
                value CLOB DEFAULT NULL,
                tab VARCHAR(40) NOT NULL DEFAULT ''
            )",
        );
        $this->addSql('CREATE INDEX staged_step_of_craft ON staged_step (craft_id, id)');
        $this->addSql(
            'CREATE TABLE journal (
                id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
                craft_id INTEGER NOT NULL REFERENCES craft (id),
                what VARCHAR(255) NOT NULL,
                reason CLOB NOT NULL,
                state VARCHAR(20) NOT NULL,
                began_at DATETIME NOT NULL,
                problem CLOB NOT NULL,
                items CLOB NOT NULL,
                revision INTEGER DEFAULT NULL
            )',
        );
        $this->addSql('CREATE INDEX journal_of_craft ON journal (craft_id, state)');
        $this->addSql('ALTER TABLE craft ADD COLUMN to_return INTEGER DEFAULT NULL');
        $this->addSql("ALTER TABLE craft ADD COLUMN accepted CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE change_entry ADD COLUMN outcome VARCHAR(20) NOT NULL DEFAULT 'done'");
        $this->addSql("ALTER TABLE change_entry ADD COLUMN left_over CLOB NOT NULL DEFAULT '[]'");
    }
}
