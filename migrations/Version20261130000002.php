<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Series of flights. */
final class Version20261130000002 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Series of flights';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE series (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, craft_id INTEGER NOT NULL, settings CLOB NOT NULL,
                steps CLOB NOT NULL, baseline DOUBLE PRECISION NOT NULL, card VARCHAR(255) NOT NULL, base CLOB NOT NULL,
                began_at DATETIME NOT NULL, ended_at DATETIME DEFAULT NULL, hot CLOB NOT NULL,
                CONSTRAINT fk_series_craft FOREIGN KEY (craft_id) REFERENCES craft (id))',
        );
        $this->addSql('CREATE INDEX ix_series_craft ON series (craft_id)');
    }
}
