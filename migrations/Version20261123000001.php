<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123000001 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Craft, settings on record, logs with their samples, jobs';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE log (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, note VARCHAR(255) NOT NULL, '.
                'code VARCHAR(255) NOT NULL, title VARCHAR(255) NOT NULL, sha256 VARCHAR(255) NOT NULL, '.
                'flown_at DATETIME NOT NULL, duration_s DOUBLE PRECISION NOT NULL, '.
                'rate_hz DOUBLE PRECISION NOT NULL, samples INTEGER NOT NULL, traces CLOB NOT NULL, '.
                'segments CLOB NOT NULL, faults CLOB NOT NULL, bad_rows CLOB NOT NULL, head CLOB NOT NULL, '.
                'settings CLOB NOT NULL, craft_id INTEGER NOT NULL, CONSTRAINT FK_8F3F68C5E836CCC8 FOREIGN KEY ('.
                'craft_id) REFERENCES craft (id) NOT DEFERRABLE INITIALLY IMMEDIATE)',
        );
        $this->addSql('CREATE INDEX IDX_8F3F68C5E836CCC8 ON log (craft_id)');
        $this->addSql(
            'CREATE TABLE change_entry (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, '.
                'revision INTEGER NOT NULL, at DATETIME NOT NULL, what VARCHAR(255) NOT NULL, '.
                'reason VARCHAR(255) NOT NULL, items CLOB NOT NULL, craft_id INTEGER NOT NULL, '.
                'CONSTRAINT FK_77F1203DE836CCC8 FOREIGN KEY (craft_id) REFERENCES craft ('.
                'id) NOT DEFERRABLE INITIALLY IMMEDIATE)',
        );
        $this->addSql('CREATE INDEX IDX_77F1203DE836CCC8 ON change_entry (craft_id)');
        $this->addSql(
            'CREATE TABLE staged_change (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, '.
                'name VARCHAR(255) NOT NULL, value CLOB NOT NULL, craft_id INTEGER NOT NULL, '.
                'CONSTRAINT FK_EB3A16C5E836CCC8 FOREIGN KEY (craft_id) REFERENCES craft ('.
                'id) NOT DEFERRABLE INITIALLY IMMEDIATE)',
        );
        $this->addSql('CREATE INDEX IDX_EB3A16C5E836CCC8 ON staged_change (craft_id)');
        $this->addSql('CREATE UNIQUE INDEX UNIQ_EB3A16C5E836CCC85E237E06 ON staged_change (craft_id, name)');
        $this->addSql(
            'CREATE TABLE snapshot (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name VARCHAR(255) NOT NULL, '.
                'by_itself BOOLEAN NOT NULL, board VARCHAR(255) NOT NULL, version VARCHAR(255) NOT NULL, '.
                'settings CLOB NOT NULL, taken_at DATETIME NOT NULL, revision INTEGER NOT NULL, '.
                'craft_id INTEGER NOT NULL, CONSTRAINT FK_2C4D1535E836CCC8 FOREIGN KEY (craft_id) REFERENCES craft ('.
                'id) NOT DEFERRABLE INITIALLY IMMEDIATE)',
        );
        $this->addSql('CREATE INDEX IDX_2C4D1535E836CCC8 ON snapshot (craft_id)');
        $this->addSql(
            'CREATE TABLE craft (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, revision INTEGER NOT NULL, '.
                'hardware_id VARCHAR(255) DEFAULT NULL, board VARCHAR(255) DEFAULT NULL, '.
                'processor VARCHAR(255) DEFAULT NULL, serial VARCHAR(255) DEFAULT NULL, '.
                'firmware VARCHAR(255) DEFAULT NULL, version VARCHAR(255) DEFAULT NULL, flash_from INTEGER NOT NULL, '.
                'flash_end INTEGER NOT NULL, page_bytes INTEGER NOT NULL, in_bootloader BOOLEAN NOT NULL, '.
                'settings CLOB NOT NULL, linked_since INTEGER DEFAULT NULL, slug VARCHAR(255) NOT NULL, '.
                'name VARCHAR(255) NOT NULL, kind VARCHAR(255) NOT NULL, purpose VARCHAR(255) NOT NULL, '.
                'story VARCHAR(255) NOT NULL, uses CLOB NOT NULL)',
        );
        $this->addSql('CREATE UNIQUE INDEX UNIQ_F45C4A84989D9B62 ON craft (slug)');
        $this->addSql(
            'CREATE TABLE job (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, state VARCHAR(255) NOT NULL, '.
                'progress DOUBLE PRECISION NOT NULL, doing VARCHAR(255) NOT NULL, cancel_asked BOOLEAN NOT NULL, '.
                'pid INTEGER DEFAULT NULL, started_at DOUBLE PRECISION DEFAULT NULL, '.
                'heartbeat_at DOUBLE PRECISION DEFAULT NULL, ended_at DOUBLE PRECISION DEFAULT NULL, '.
                'message CLOB NOT NULL, result CLOB NOT NULL, seen BOOLEAN NOT NULL, kind VARCHAR(255) NOT NULL, '.
                'title VARCHAR(255) NOT NULL, work_order CLOB NOT NULL, asked_at DOUBLE PRECISION NOT NULL, '.
                'craft_id INTEGER NOT NULL, CONSTRAINT FK_FBD8E0F8E836CCC8 FOREIGN KEY (craft_id) REFERENCES craft ('.
                'id) NOT DEFERRABLE INITIALLY IMMEDIATE)',
        );
        $this->addSql('CREATE INDEX IDX_FBD8E0F8E836CCC8 ON job (craft_id)');
        $this->addSql(
            'CREATE TABLE log_chunk (log_id INTEGER NOT NULL REFERENCES log (id) ON DELETE CASCADE, '.
                'trace TEXT NOT NULL, level INTEGER NOT NULL, part INTEGER NOT NULL, data BLOB NOT NULL, '.
                'PRIMARY KEY (log_id, trace, level, part)) WITHOUT ROWID',
        );
        $this->addSql(
            'CREATE TABLE analysis (hash TEXT PRIMARY KEY NOT NULL, log_id INTEGER NOT NULL REFERENCES log ('.
                'id) ON DELETE CASCADE, report TEXT NOT NULL, charts TEXT NOT NULL)',
        );
        $this->addSql('CREATE INDEX analysis_log ON analysis (log_id)');
    }

    public function down(Schema $schema): void
    {
        foreach (['analysis', 'log_chunk', 'log', 'change_entry', 'staged_change', 'snapshot', 'job', 'craft'] as $table) {
            $this->addSql("DROP TABLE $table");
        }
    }
}
