<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Doctrine\DBAL\Driver;
use Doctrine\DBAL\Driver\Connection;
use Doctrine\DBAL\Driver\Middleware;
use Doctrine\DBAL\Driver\Middleware\AbstractDriverMiddleware;

/** Sets each SQLite connection up: write-ahead log, foreign keys on, patience for other writers. */
final class SqlitePragmas implements Middleware
{
    public function wrap(Driver $driver): Driver
    {
        return new class($driver) extends AbstractDriverMiddleware {
            public function connect(#[\SensitiveParameter] array $params): Connection
            {
                $connection = parent::connect($params);
                foreach (['busy_timeout = 5000', 'journal_mode = WAL', 'synchronous = NORMAL', 'foreign_keys = ON'] as $pragma) {
                    $connection->exec("PRAGMA $pragma");
                }

                return $connection;
            }
        };
    }
}
