<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123000006 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Logs: parts replaced before the flight, windows struck out of the step, traces turned about';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE log ADD COLUMN parts CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE log ADD COLUMN struck CLOB NOT NULL DEFAULT '[]'");
        $this->addSql("ALTER TABLE log ADD COLUMN turned CLOB NOT NULL DEFAULT '[]'");
    }

    public function down(Schema $schema): void
    {
        foreach (['parts', 'struck', 'turned'] as $column) {
            $this->addSql("ALTER TABLE log DROP COLUMN $column");
        }
    }
}
