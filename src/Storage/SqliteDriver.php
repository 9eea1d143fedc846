<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\DBAL\Driver\Connection;
use Doctrine\DBAL\Driver\Middleware\AbstractDriverMiddleware;

/** Opens SQLite with foreign keys on and patience for other writers; its write-ahead log was chosen when the file was made. */
final class SqliteDriver extends AbstractDriverMiddleware
{
    public function connect(#[\SensitiveParameter] array $params): Connection
    {
        $connection = parent::connect($params);
        $connection->exec('PRAGMA busy_timeout = 5000; PRAGMA synchronous = NORMAL; PRAGMA foreign_keys = ON');

        return $connection;
    }
}
