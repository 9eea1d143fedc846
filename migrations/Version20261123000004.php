<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123000004 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'ESCs as last read, what must be redone after work on them, wires drawn, checks of the drive';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE craft ADD COLUMN escs CLOB NOT NULL DEFAULT '[]'");
        $this->addSql('ALTER TABLE craft ADD COLUMN escs_since INTEGER DEFAULT NULL');
        $this->addSql("ALTER TABLE craft ADD COLUMN escs_problem VARCHAR(500) NOT NULL DEFAULT ''");
        $this->addSql("ALTER TABLE craft ADD COLUMN redo CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE craft ADD COLUMN left_out CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE craft ADD COLUMN sensors CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE craft ADD COLUMN wires CLOB NOT NULL DEFAULT '[]'");
        $this->addSql(
            'CREATE TABLE drive_check (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, kind VARCHAR(40) NOT NULL, '.
                'data CLOB NOT NULL, taken_at DATETIME NOT NULL, craft_id INTEGER NOT NULL REFERENCES craft (id))',
        );
        $this->addSql('CREATE INDEX drive_check_of ON drive_check (craft_id, kind)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE drive_check');
        foreach (['wires', 'sensors', 'left_out', 'redo', 'escs_problem', 'escs_since', 'escs'] as $column) {
            $this->addSql("ALTER TABLE craft DROP COLUMN $column");
        }
    }
}
