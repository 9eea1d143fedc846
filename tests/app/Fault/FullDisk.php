<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsMiddleware;
use Doctrine\DBAL\Driver;
use Doctrine\DBAL\Driver\Connection;
use Doctrine\DBAL\Driver\Middleware;
use Doctrine\DBAL\Driver\Middleware\AbstractConnectionMiddleware;
use Doctrine\DBAL\Driver\Middleware\AbstractDriverMiddleware;
use Doctrine\DBAL\Driver\Middleware\AbstractStatementMiddleware;
use Doctrine\DBAL\Driver\PDO\Exception;
use Doctrine\DBAL\Driver\Result;
use Doctrine\DBAL\Driver\Statement;

/** A disk that is full from the planned write on, for the book as for the bench; what is read is read. */
#[AsMiddleware(priority: 100)]
final class FullDisk implements Middleware
{
    /** Which write of the book finds no room; 0 for none. */
    public static int $at = 0;

    public static int $writes = 0;
    public static bool $full = false;

    public static function fillAt(int $write): void
    {
        [self::$at, self::$writes, self::$full] = [$write, 0, false];
    }

    public function wrap(Driver $driver): Driver
    {
        return new class($driver) extends AbstractDriverMiddleware {
            public function connect(#[\SensitiveParameter] array $params): Connection
            {
                return new class(parent::connect($params)) extends AbstractConnectionMiddleware {
                    public function prepare(string $sql): Statement
                    {
                        return new class(parent::prepare($sql), $sql) extends AbstractStatementMiddleware {
                            public function __construct(Statement $real, private readonly string $sql)
                            {
                                parent::__construct($real);
                            }

                            public function execute(): Result
                            {
                                FullDisk::meet($this->sql);

                                return parent::execute();
                            }
                        };
                    }

                    public function query(string $sql): Result
                    {
                        FullDisk::meet($sql);

                        return parent::query($sql);
                    }

                    public function exec(string $sql): int|string
                    {
                        FullDisk::meet($sql);

                        return parent::exec($sql);
                    }
                };
            }
        };
    }

    public static function meet(string $sql): void
    {
        if (0 === self::$at || 1 !== preg_match('~^\s*(INSERT|UPDATE|DELETE|REPLACE)~i', $sql)) {
            return;
        }
        if (++self::$writes >= self::$at) {
            self::$full = true;
        }
        if (self::$full) {
            $e = new \PDOException('database or disk is full');
            $e->errorInfo = ['HY000', 13, 'database or disk is full'];
            throw Exception::new($e);
        }
    }
}
