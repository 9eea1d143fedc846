<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** What was proved on a craft, the ticks of its go card, and its packs. */
final class Version20261129000005 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Proofs, go card and packs';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE craft ADD COLUMN proofs CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE craft ADD COLUMN ticks CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE craft ADD COLUMN packs CLOB NOT NULL DEFAULT '[]'");
    }
}
