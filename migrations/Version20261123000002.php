<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123000002 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Poses shown for the mounting';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE shown_pose (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, '.
                'x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, z DOUBLE PRECISION NOT NULL, '.
                'pose VARCHAR(255) NOT NULL, craft_id INTEGER NOT NULL REFERENCES craft (id))',
        );
        $this->addSql('CREATE UNIQUE INDEX shown_pose_once ON shown_pose (craft_id, pose)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE shown_pose');
    }
}
