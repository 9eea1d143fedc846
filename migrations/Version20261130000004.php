<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Measurements on the desk. */
final class Version20261130000004 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Measurements on the desk';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE desk_noise (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, craft_id INTEGER NOT NULL, taken_at DATETIME NOT NULL,
                rate_hz DOUBLE PRECISION NOT NULL, steps CLOB NOT NULL,
                CONSTRAINT fk_desk_noise_craft FOREIGN KEY (craft_id) REFERENCES craft (id))',
        );
        $this->addSql('CREATE INDEX ix_desk_noise_craft ON desk_noise (craft_id)');
    }
}
