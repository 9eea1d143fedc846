<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Craft are made from parts, and can be put away. */
final class Version20261130000008 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Craft are made from parts, and can be put away';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE craft ADD parts CLOB DEFAULT '[]' NOT NULL");
        $this->addSql('ALTER TABLE craft ADD by_hand BOOLEAN DEFAULT 0 NOT NULL');
        $this->addSql('ALTER TABLE craft ADD put_away_at DATETIME DEFAULT NULL');
    }
}
