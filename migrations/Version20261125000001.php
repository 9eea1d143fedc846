<?php

declare(strict_types=1);

namespace Ortholex\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Reasons of unreadable rows, and holes that they explain, were kept as English; they become codes and figures. */
final class Version20261125000001 extends AbstractMigration
{
    /** Pattern of the old sentence => code; its named groups are the figures. */
    private const REASONS = [
        '~^longer than (?<mb>\d+) MB~' => 'bad_row.too_long',
        '~^torn at the end~' => 'bad_row.torn',
        '~^(?<cells>\d+) cells instead of (?<wanted>\d+)$~' => 'bad_row.wrong_cells',
        '~^column (?<column>\d+) is not a number$~' => 'bad_row.not_a_number',
        '~^column (?<column>\d+) is not finite$~' => 'bad_row.not_finite',
    ];

    public function getDescription(): string
    {
        return 'Logs: why rows were left out, as codes';
    }

    public function up(Schema $schema): void
    {
        foreach ($this->connection->fetchAllAssociative('SELECT id, bad_rows, faults FROM log') as $log) {
            $bad = json_decode(\is_string($log['bad_rows']) ? $log['bad_rows'] : '', true);
            if (!\is_array($bad) || !\is_array($bad['places'] ?? null)) {
                continue;
            }
            foreach ($bad['places'] as $i => $place) {
                if (\is_array($place) && \is_string($place['reason'] ?? null)) {
                    $bad['places'][$i] = ['reason' => self::coded($place['reason'])] + $place;
                }
            }
            $this->addSql('UPDATE log SET bad_rows = ?, faults = ? WHERE id = ?', [
                json_encode($bad, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
                str_replace('"left out"', '"left_out"', \is_string($log['faults']) ? $log['faults'] : '[]'),
                $log['id'],
            ]);
        }
    }

    /** @return array{code: string, figures: array<string, int>} */
    private static function coded(string $reason): array
    {
        foreach (self::REASONS as $pattern => $code) {
            if (1 === preg_match($pattern, $reason, $found)) {
                $figures = array_filter($found, \is_string(...), \ARRAY_FILTER_USE_KEY);

                return ['code' => $code, 'figures' => array_map(intval(...), $figures)];
            }
        }

        return ['code' => 'bad_row.torn', 'figures' => []];
    }
}
