<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * A number a craft that goes up with everything written about it: what was reckoned of a craft holds while it stands still.
 *
 * Kept by triggers, so that nothing that writes can forget it. A migration that makes one of these tables anew makes its triggers anew.
 */
final class Version20261130000009 extends AbstractMigration
{
    private const OF_CRAFT = [
        'log',
        'change_entry',
        'staged_change',
        'snapshot',
        'job',
        'shown_pose',
        'shown_spin',
        'drive_check',
        'staged_step',
        'journal',
        'stick_capture',
        'series',
        'desk_noise',
    ];
    private const OF_LOG = ['analysis', 'passage'];

    public function getDescription(): string
    {
        return 'What is written about a craft is counted';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE craft_touch (craft_id INTEGER PRIMARY KEY NOT NULL, n INTEGER DEFAULT 0 NOT NULL)');
        $this->addSql('INSERT INTO craft_touch (craft_id) SELECT id FROM craft');
        $this->addSql(
            'CREATE TRIGGER touch_craft_insert AFTER INSERT ON craft BEGIN '.
                'INSERT OR IGNORE INTO craft_touch (craft_id) VALUES (NEW.id); END',
        );
        $this->trigger('craft', 'UPDATE', 'NEW.id');
        foreach (self::OF_CRAFT as $table) {
            foreach (['INSERT' => 'NEW', 'UPDATE' => 'NEW', 'DELETE' => 'OLD'] as $when => $row) {
                $this->trigger($table, $when, "$row.craft_id");
            }
        }
        foreach (self::OF_LOG as $table) {
            foreach (['INSERT' => 'NEW', 'UPDATE' => 'NEW', 'DELETE' => 'OLD'] as $when => $row) {
                $this->trigger($table, $when, "(SELECT craft_id FROM log WHERE id = $row.log_id)");
            }
        }
    }

    private function trigger(string $table, string $when, string $craft): void
    {
        $name = 'touch_'.$table.'_'.strtolower($when);
        $this->addSql("CREATE TRIGGER $name AFTER $when ON $table BEGIN UPDATE craft_touch SET n = n + 1 WHERE craft_id = $craft; END");
    }
}
