<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** What was seen of position and compass of a craft, and of its video. */
final class Version20261129000007 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Position, compass, video';
    }

    public function up(Schema $schema): void
    {
        foreach (['position', 'compass', 'video'] as $column) {
            $this->addSql("ALTER TABLE craft ADD COLUMN $column CLOB NOT NULL DEFAULT '[]'");
        }
    }
}
