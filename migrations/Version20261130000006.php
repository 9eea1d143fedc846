<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** When a craft was last read, and what the book believed otherwise. */
final class Version20261130000006 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Last read, and what the book believed otherwise';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE craft ADD read_at DATETIME DEFAULT NULL');
        $this->addSql("ALTER TABLE craft ADD believed CLOB DEFAULT '[]' NOT NULL");
    }
}
