<?php

declare(strict_types=1);

namespace Ortholex\App\Report\Folder;

use Ortholex\App\Work\Process\ConsoleCommand;
use Ortholex\Core\FlightLog\LogError;
use Symfony\Component\Process\Process;

/**
 * A folder of logs, each read and analysed in a process of its own, several at a time; one line of JSON a log, in the order they are
 * done: {"log": name, "bytes": size, "report": …} or {"log", "bytes", "problem": line}. What stands in the file already, by name and
 * size, is not done again, so that a run that was broken off goes on; a last line that was cut off is dropped.
 */
final readonly class AnalyseFolder
{
    private const WAIT_US = 20_000;

    /** One log takes no longer than this, s. */
    private const MOST_S = 1800.0;

    public function __construct(private string $projectFolder)
    {
    }

    /**
     * @param callable(string, bool): void $told of each log as it is done, and whether it could be read
     *
     * @return array{int, int, int} done now, of them not read, and done before
     *
     * @throws LogError when the folder or the file cannot be used
     */
    public function run(string $folder, string $out, int $processes, callable $told): array
    {
        $logs = self::logs($folder);
        $done = self::done($out);
        $stream = @fopen($out, 'a');
        if (false === $stream) {
            throw LogError::of("$out cannot be written. Choose another file with --out.");
        }
        $left = array_values(array_filter($logs, static fn (string $name): bool => ($done[$name] ?? null) !== filesize("$folder/$name")));
        $running = [];
        $bad = 0;
        try {
            while ([] !== $left || [] !== $running) {
                while ([] !== $left && \count($running) < $processes) {
                    $name = array_shift($left);
                    $running[$name] = $this->started("$folder/$name");
                }
                foreach ($running as $name => $process) {
                    $process->checkTimeout();
                    if ($process->isRunning()) {
                        continue;
                    }
                    $report = json_decode($process->getOutput(), true);
                    $read = 0 === $process->getExitCode() && \is_array($report);
                    $bad += $read ? 0 : 1;
                    $line = ['log' => (string) $name, 'bytes' => (int) filesize("$folder/$name")];
                    $line += $read ? ['report' => $report] : ['problem' => self::problem($process)];
                    if (false === fwrite($stream, self::json($line)."\n") || !fflush($stream)) {
                        throw LogError::of("$out could not be written to its end. Make room and run it again: what is done stays done.");
                    }
                    unset($running[$name]);
                    $told((string) $name, $read);
                }
                usleep(self::WAIT_US);
            }
        } finally {
            foreach ($running as $process) {
                $process->stop(0);
            }
            fclose($stream);
        }

        return [\count($logs) - self::among($logs, $done, $folder), $bad, self::among($logs, $done, $folder)];
    }

    /** @return list<string> names of logs, in order */
    private static function logs(string $folder): array
    {
        $found = @scandir($folder);
        if (false === $found) {
            throw LogError::of("The folder $folder cannot be read.");
        }
        $logs = array_filter($found, static fn (string $n): bool => 1 === preg_match('~\.csv(?:\.gz)?$~i', $n) && is_file("$folder/$n"));
        if ([] === $logs) {
            throw LogError::of("There is no log in $folder: files that end in .csv or .csv.gz are looked for.");
        }

        return array_values($logs);
    }

    /**
     * @return array<string, int> bytes by name of what stands in a file already; its last line is dropped where it was cut off
     */
    private static function done(string $out): array
    {
        if (!is_file($out)) {
            return [];
        }
        $data = (string) file_get_contents($out);
        $whole = false === ($cut = strrpos($data, "\n")) ? '' : substr($data, 0, $cut + 1);
        if ($whole !== $data && false === @file_put_contents($out, $whole)) {
            throw LogError::of("$out ends in a line that was cut off, and cannot be mended. Choose another file with --out.");
        }
        $done = [];
        foreach (explode("\n", trim($whole)) as $line) {
            $one = json_decode($line, true);
            if (\is_array($one) && \is_string($one['log'] ?? null) && \is_int($one['bytes'] ?? null)) {
                $done[$one['log']] = $one['bytes'];
            }
        }

        return $done;
    }

    /**
     * @param list<string>       $logs
     * @param array<string, int> $done
     */
    private static function among(array $logs, array $done, string $folder): int
    {
        return \count(array_filter($logs, static fn (string $name): bool => ($done[$name] ?? null) === filesize("$folder/$name")));
    }

    private function started(string $path): Process
    {
        $command = ConsoleCommand::words($this->projectFolder, 'analyse', $path, '--json');
        $process = new Process($command, $this->projectFolder, timeout: self::MOST_S);
        $process->start();

        return $process;
    }

    private static function problem(Process $process): string
    {
        $line = trim(strtok(trim($process->getErrorOutput()), "\n") ?: '');

        return '' === $line ? 'it broke off with exit '.($process->getExitCode() ?? '?') : $line;
    }

    /** @param array<string, mixed> $line */
    private static function json(array $line): string
    {
        return (string) json_encode($line, \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION);
    }
}
