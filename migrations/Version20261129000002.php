<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** ESCs are known by their serial numbers: what is kept of them says which sat where. */
final class Version20261129000002 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Which ESC sat where, with changes, snapshots and the journal';
    }

    public function up(Schema $schema): void
    {
        foreach (['journal', 'change_entry', 'snapshot'] as $table) {
            $this->addSql("ALTER TABLE $table ADD COLUMN escs CLOB NOT NULL DEFAULT '[]'");
        }
        $this->addSql("ALTER TABLE craft ADD COLUMN esc_orders CLOB NOT NULL DEFAULT '[]'");
    }
}
