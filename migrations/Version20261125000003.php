<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Where a job is, in figures: pages had been read out of its words. */
final class Version20261125000003 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Jobs: where they are, in figures';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE job ADD COLUMN step CLOB NOT NULL DEFAULT '[]'");
    }
}
