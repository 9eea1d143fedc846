<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\DBAL\Driver;
use Doctrine\DBAL\Driver\Middleware;

/** Has every connection opened by our SqliteDriver. */
final class SqlitePragmas implements Middleware
{
    public function wrap(Driver $driver): Driver
    {
        return new SqliteDriver($driver);
    }
}
