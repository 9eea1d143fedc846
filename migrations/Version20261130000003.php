<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Which recording of its craft a log was. */
final class Version20261130000003 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Recordings that were fetched';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE log ADD recording VARCHAR(30) DEFAULT '' NOT NULL");
    }
}
