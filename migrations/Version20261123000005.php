<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123000005 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Logs put away with a way back, their tags, and what was answered of foreign columns';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE log ADD COLUMN put_away_at DATETIME DEFAULT NULL');
        $this->addSql("ALTER TABLE log ADD COLUMN tags VARCHAR(200) NOT NULL DEFAULT ''");
        $this->addSql(
            'CREATE TABLE passage (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name VARCHAR(80) NOT NULL, '.
                'from_s DOUBLE PRECISION NOT NULL, to_s DOUBLE PRECISION NOT NULL, '.
                'log_id INTEGER NOT NULL REFERENCES log (id))',
        );
        $this->addSql('CREATE TABLE column_map (header VARCHAR(64) PRIMARY KEY NOT NULL, map CLOB NOT NULL)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE passage');
        $this->addSql('DROP TABLE column_map');
        $this->addSql('ALTER TABLE log DROP COLUMN tags');
        $this->addSql('ALTER TABLE log DROP COLUMN put_away_at');
    }
}
