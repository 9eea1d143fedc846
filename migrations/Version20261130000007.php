<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Snapshots can be put away. */
final class Version20261130000007 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Snapshots can be put away';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE snapshot ADD put_away_at DATETIME DEFAULT NULL');
    }
}
