<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Aids;

use PHPUnit\Framework\TestCase;

/**
 * PHP 8.2 compiles what runs often, and has come to other figures by it: once a magnetic field that pointed up after ten looks. What
 * is reckoned here is reckoned with the compiler and without, each in a process of its own.
 */
final class CompilerTest extends TestCase
{
    public function testFiguresAreTheSameWithAndWithoutTheCompiler(): void
    {
        $plain = self::figures(['-d', 'opcache.jit=0', '-d', 'opcache.enable_cli=0']);
        self::assertStringContainsString('magnetic ', $plain);
        self::assertSame(8, substr_count($plain, "\n"));
        $compiled = self::figures([
            ...['-d', 'opcache.enable=1', '-d', 'opcache.enable_cli=1'],
            ...['-d', 'opcache.jit=1054', '-d', 'opcache.jit_buffer_size=128M', '-d', 'opcache.jit_hot_loop=8'],
        ]);
        self::assertSame($plain, $compiled);
    }

    /** @param list<string> $with */
    private static function figures(array $with): string
    {
        $process = proc_open([\PHP_BINARY, ...$with, __DIR__.'/figures.php'], [1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        $out = (string) stream_get_contents($pipes[1]);
        $err = (string) stream_get_contents($pipes[2]);
        self::assertSame(0, proc_close($process), $err);

        return $out;
    }
}
