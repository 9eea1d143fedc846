<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Series of what is replaced. */
final class Version20261130000005 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Series of what is replaced';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE series ADD part VARCHAR(40) DEFAULT '' NOT NULL");
        $this->addSql("ALTER TABLE series ADD variants CLOB DEFAULT '[]' NOT NULL");
    }
}
