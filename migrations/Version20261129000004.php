<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Why what moved shows nothing of the stick that is asked for. */
final class Version20261129000004 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What hinders a capture';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE stick_capture ADD COLUMN why VARCHAR(255) NOT NULL DEFAULT ''");
    }
}
