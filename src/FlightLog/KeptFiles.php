<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

/** Logs as they came from disk, packed: so that their columns can be matched once more, whenever somebody sees that they were not right. */
final readonly class KeptFiles
{
    private const PACKED = 6;
    private const BLOCK_BYTES = 262_144;

    public function __construct(private string $dataFolder)
    {
    }

    /** Keeps a copy; where the disk has no room for one, the log stands without. */
    public function keep(string $path, Log $log): bool
    {
        $to = $this->path($log);
        if (is_file($to)) {
            return true;
        }
        $folder = \dirname($to);
        if (!is_dir($folder) && !@mkdir($folder, 0o700, true)) {
            return false;
        }
        $in = @gzopen($path, 'rb');
        $out = @gzopen("$to.part", 'wb'.self::PACKED);
        if (false === $in || false === $out) {
            return false;
        }
        $kept = true;
        while ($kept && '' !== ($bytes = (string) @gzread($in, self::BLOCK_BYTES))) {
            $kept = \strlen($bytes) === @gzwrite($out, $bytes);
        }
        $kept = @gzclose($out) && $kept;
        gzclose($in);
        if (!$kept || !@rename("$to.part", $to)) {
            @unlink("$to.part");

            return false;
        }

        return true;
    }

    public function has(Log $log): bool
    {
        return is_file($this->path($log));
    }

    public function path(Log $log): string
    {
        return "$this->dataFolder/logs/$log->sha256.csv.gz";
    }
}
