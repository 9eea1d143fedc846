<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Columns of a log that are no trace of ours. */
final class Version20261130000001 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Columns left out of a log';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE log ADD COLUMN left_out CLOB NOT NULL DEFAULT '[]'");
    }
}
