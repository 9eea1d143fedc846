<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** The range walk of a craft: how good the link was at which distance. */
final class Version20261129000006 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Range walk';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE craft ADD COLUMN walk CLOB NOT NULL DEFAULT '[]'");
    }
}
