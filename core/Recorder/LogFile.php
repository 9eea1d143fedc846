<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Together\Together;

/** A log on disk: a recording, or a CSV of anyone; which it is, is seen by its content. */
final readonly class LogFile
{
    private const LOOKED_AT = 65_536;

    /** A recording is read whole: one that is larger than any recorder is none. */
    private const MOST_BYTES = 512_000_000;

    public static function isRecording(string $path): bool
    {
        return Recording::isOne((string) @file_get_contents($path, length: self::LOOKED_AT));
    }

    /**
     * @throws LogError       when it cannot be opened
     * @throws RecordingError where nothing of it can be read, or it is larger than any recorder
     */
    public static function recording(string $path): Recording
    {
        if (!is_file($path) || !is_readable($path)) {
            throw LogError::noFile($path);
        }
        if (filesize($path) > self::MOST_BYTES) {
            throw RecordingError::tooLarge($path);
        }

        return Recording::read((string) file_get_contents($path));
    }

    /**
     * @param \Closure(): LogPlan|null     $plan     what the columns of a CSV are; drawn up by itself when null. Not asked of a recording
     * @param (\Closure(float): void)|null $progress told the share read, 0 to 1
     * @param Together|null                $together how the halves of a CSV are read; in one go when null
     *
     * @throws LogError|RecordingError with a single clear line when the file is no log
     */
    public static function read(
        string $path,
        ?\Closure $plan = null,
        ?\Closure $progress = null,
        ?Together $together = null,
    ): FlightLog {
        return self::isRecording($path)
            ? self::recording($path)->log
            : LogReader::readFile($path, progress: $progress, plan: null === $plan ? null : $plan(), together: $together);
    }
}
