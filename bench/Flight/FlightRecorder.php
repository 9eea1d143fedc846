<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight;

use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Bench\Storage\NotKept;
use Ortholex\Core\FlightLog\LogWriter;

/** Writes the rows of a flight as our own CSV, in blocks. */
final class FlightRecorder
{
    private const ROWS_PER_WRITE = 2000;

    private readonly string $format;
    private string $text = '';
    private int $rows = 0;

    /**
     * @param resource     $stream
     * @param string       $head  YAML to stand ahead of the header
     * @param list<string> $names of the traces
     * @param int          $every control steps from row to row
     */
    public function __construct(private $stream, string $head, array $names, private readonly int $every)
    {
        $this->keep(LogWriter::head($head, $names));
        $this->format = LogWriter::rowFormat($names);
    }

    public function isDue(int $step): bool
    {
        return 0 === $step % $this->every;
    }

    /**
     * @param list<float|int> $row time, then the traces in their order
     *
     * @return bool whether a block was written with it
     */
    public function record(array $row): bool
    {
        $this->text .= vsprintf($this->format, $row);
        if (0 !== ++$this->rows % self::ROWS_PER_WRITE) {
            return false;
        }
        $this->finish();

        return true;
    }

    public function finish(): void
    {
        $this->keep($this->text);
        $this->text = '';
    }

    /** @throws NotKept when the recorder is full */
    private function keep(string $text): void
    {
        $written = DurableFile::all($this->stream, $text);
        if ($written !== \strlen($text) || !@fflush($this->stream)) {
            throw NotKept::short(stream_get_meta_data($this->stream)['uri'] ?? 'the recorder', $written, \strlen($text));
        }
    }
}
