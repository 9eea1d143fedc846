<?php

declare(strict_types=1);

namespace Ortholex\App\Work\Process;

use Symfony\Component\Process\PhpExecutableFinder;

/** A command of our own console, as the words that start it in a process of its own. */
final class ConsoleCommand
{
    /** The compiler's allocation of registers is left out: with it figures came out wrong. */
    private const SWITCHES = ['opcache.enable_cli=1', 'opcache.jit=1054', 'opcache.jit_buffer_size=128M', 'memory_limit=2G'];

    /** Long columns come and go by the ten megabytes: in pages of two each the kernel takes a tenth of the time off them. */
    private const LARGE_PAGES = 'USE_ZEND_ALLOC_HUGE_PAGES=1';

    /** @return list<string> to be run in the project's folder */
    public static function words(string $projectFolder, string ...$words): array
    {
        $switches = [];
        foreach (self::SWITCHES as $switch) {
            array_push($switches, '-d', $switch);
        }

        return ['env', self::LARGE_PAGES, self::php(), ...$switches, $projectFolder.'/bin/console', ...array_values($words)];
    }

    /** PHP for the command line, also where pages come from another make of it, as php-fpm. */
    private static function php(): string
    {
        return 'fpm-fcgi' === \PHP_SAPI ? (new PhpExecutableFinder())->find(false) ?: 'php' : \PHP_BINARY;
    }
}
