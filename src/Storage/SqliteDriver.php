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
        $path = \is_string($params['path'] ?? null) ? $params['path'] : '';
        if (is_file($path) && !(is_writable($path) && is_writable(\dirname($path))) && 0 === (int) @filesize("$path-wal")) {
            // Nobody writes to it, so it can be read as it lies; its log and its index could not be made beside it.
            $params['path'] = 'file:'.implode('/', array_map(rawurlencode(...), explode('/', $path))).'?mode=ro&immutable=1';
        }
        $connection = parent::connect($params);
        $connection->exec('PRAGMA busy_timeout = 5000; PRAGMA synchronous = NORMAL; PRAGMA foreign_keys = ON');

        return $connection;
    }
}
