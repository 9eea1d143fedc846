<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** A spin that was shown holds for the pad map and the directions it was seen under. */
final class Version20261130000010 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What was seen at a spin check keeps what it was seen under';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE shown_spin ADD under CLOB DEFAULT '[]' NOT NULL");
    }
}
