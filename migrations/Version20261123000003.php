<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123000003 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Answers of the spin check';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE shown_spin (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, '.
                'place VARCHAR(255) NOT NULL, direction INTEGER NOT NULL, pad INTEGER NOT NULL, '.
                'craft_id INTEGER NOT NULL REFERENCES craft (id))',
        );
        $this->addSql('CREATE UNIQUE INDEX shown_spin_once ON shown_spin (craft_id, pad)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE shown_spin');
    }
}
