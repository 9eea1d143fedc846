<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** What the sticks were seen to do: a capture that is under way, and what was learned of each craft's radio. */
final class Version20261129000003 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Captures of sticks and levers, and what they taught';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE craft ADD COLUMN radio CLOB NOT NULL DEFAULT '{}'");
        $this->addSql("ALTER TABLE craft ADD COLUMN put_back CLOB NOT NULL DEFAULT '{}'");
        $this->addSql(
            'CREATE TABLE stick_capture (craft_id INTEGER NOT NULL PRIMARY KEY REFERENCES craft (id) ON DELETE CASCADE,'.
                " kind VARCHAR(20) NOT NULL, asked VARCHAR(20) NOT NULL DEFAULT '', plugging INTEGER NOT NULL DEFAULT 0,".
                ' last_frame INTEGER NOT NULL DEFAULT 0)',
        );
        $this->addSql(
            'CREATE TABLE stick_piece (id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,'.
                ' craft_id INTEGER NOT NULL REFERENCES craft (id) ON DELETE CASCADE, frames BLOB NOT NULL)',
        );
        $this->addSql('CREATE INDEX stick_piece_of ON stick_piece (craft_id)');
    }
}
