<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Releases of Loam are numbered by year and month: what was kept under the first numbers is carried over. */
final class Version20261125000002 extends AbstractMigration
{
    private const NOW = [
        '4.0.3' => '25.02',
        '4.1.2' => '25.08',
        '4.2.1' => '26.01',
        '4.3.0' => '26.06',
        '4.4.0-pre1' => '26.10-pre1',
    ];

    /** Table and column => how a number stands in it; # is the number. Texts of ESCs and of people are left alone. */
    private const PLACES = [
        ['snapshot', 'name', ['Before flashing #']],
        ['change_entry', 'what', ['Flash: # to', 'Flash: % to #']],
        ['job', 'title', ['Write Loam #']],
        ['job', 'work_order', ['"loam-#-']],
        ['log', 'head', ['Loam #']],
        ['log', 'settings', ['Loam #']],
    ];

    public function getDescription(): string
    {
        return 'Releases of Loam by year and month';
    }

    public function up(Schema $schema): void
    {
        foreach (self::NOW as $old => $new) {
            foreach (['craft', 'snapshot'] as $table) {
                $this->addSql("UPDATE $table SET version = ? WHERE version = ?", [$new, $old]);
            }
            foreach (self::PLACES as [$table, $column, $ways]) {
                foreach ($ways as $way) {
                    $this->addSql("UPDATE $table SET $column = REPLACE($column, ?, ?) WHERE $column LIKE ?", [
                        $old,
                        $new,
                        '%'.str_replace('#', $old, $way).'%',
                    ]);
                }
            }
        }
    }
}
