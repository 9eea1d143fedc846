<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsMiddleware;
use Doctrine\DBAL\Driver;
use Doctrine\DBAL\Driver\Middleware;

/** Has every connection opened by our SqliteDriver, next to the driver itself: within a transaction it would be too late. */
#[AsMiddleware(priority: 200)]
final class SqlitePragmas implements Middleware
{
    public function wrap(Driver $driver): Driver
    {
        return new SqliteDriver($driver);
    }
}
