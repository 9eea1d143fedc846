<?php

declare(strict_types=1);

namespace Ortholex\App\Work\Process;

use Ortholex\Core\Together\Together;

/**
 * All parts but the last in processes of their own, which see what this one holds and hand their results back; the last here. A part whose
 * process fails is done here as well, so that nothing but time depends on it.
 */
final class SideBySide implements Together
{
    public function all(array $parts): array
    {
        // Only the command line may be split: a worker of the web server holds a connection.
        if (\PHP_SAPI !== 'cli' || !\function_exists('pcntl_fork') || !\function_exists('posix_kill')) {
            return array_map(static fn (\Closure $part): array => $part(), $parts);
        }
        $last = array_key_last($parts);
        $begun = [];
        foreach ($parts as $name => $part) {
            if ($name !== $last) {
                $begun[$name] = self::begin($part);
            }
        }
        try {
            $done = null === $last ? [] : [$last => $parts[$last]()];
        } catch (\Throwable $e) {
            // Nobody waits for the others any more.
            foreach (array_filter($begun) as [$process, $from]) {
                posix_kill($process, \SIGKILL);
                fclose($from);
                pcntl_waitpid($process, $status);
            }
            throw $e;
        }
        foreach ($begun as $name => $one) {
            $done[$name] = (null === $one ? null : self::end(...$one)) ?? $parts[$name]();
        }

        return $done;
    }

    /**
     * @param \Closure(): array<mixed> $part
     *
     * @return array{int, resource}|null process and what it writes to; null where none could be had
     */
    private static function begin(\Closure $part): ?array
    {
        $ends = stream_socket_pair(\STREAM_PF_UNIX, \STREAM_SOCK_STREAM, 0);
        if (false === $ends) {
            return null;
        }
        $process = pcntl_fork();
        if (-1 === $process) {
            return null;
        }
        if (0 !== $process) {
            fclose($ends[1]);

            return [$process, $ends[0]];
        }
        fclose($ends[0]);
        try {
            $bytes = serialize($part());
            for ($at = 0; $at < \strlen($bytes); $at += max(0, $written)) {
                $written = fwrite($ends[1], substr($bytes, $at, 65_536));
                if (false === $written || 0 === $written) {
                    break;
                }
            }
        } catch (\Throwable) {
            // Nothing comes back: the part is done again where its error is seen.
        }
        // Ended without a word: no destructor of what is shared with the other process may run here.
        posix_kill(posix_getpid(), \SIGKILL);
        exit(1);
    }

    /**
     * @param resource $from
     *
     * @return array<mixed>|null null where the process failed
     */
    private static function end(int $process, $from): ?array
    {
        $bytes = (string) stream_get_contents($from);
        fclose($from);
        pcntl_waitpid($process, $status);
        $result = '' === $bytes ? false : @unserialize($bytes);

        return \is_array($result) ? $result : null;
    }
}
