<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\DBAL\Connection;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Live\LiveSource;

/** How many changes are staged at this moment. */
final readonly class StagedLive implements LiveSource
{
    public function __construct(private Connection $db)
    {
    }

    public function key(): string
    {
        return 'staged';
    }

    public function facts(Craft $craft): int
    {
        $count = $this->db->fetchOne('SELECT COUNT(*) FROM staged_change WHERE craft_id = ?', [$craft->id]);

        return is_numeric($count) ? (int) $count : 0;
    }
}
