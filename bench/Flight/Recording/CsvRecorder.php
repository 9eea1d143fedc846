<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Recording;

use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Bench\Storage\NotKept;
use Ortholex\Core\FlightLog\LogWriter;

/** Writes the rows of a flight as our own CSV, in blocks. */
final class CsvRecorder implements FlightRecorder
{
    private const ROWS_PER_WRITE = 2000;

    private string $format = '';
    private string $text = '';
    private int $rows = 0;

    /**
     * @param resource $stream
     * @param string   $head   YAML to stand ahead of the header
     */
    public function __construct(private $stream, private readonly string $head = '')
    {
    }

    public function begin(array $names, float $rateHz): void
    {
        $this->keep(LogWriter::head($this->head, $names));
        $this->format = LogWriter::rowFormat($names);
    }

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

    /** @throws NotKept when there is no room */
    private function keep(string $text): void
    {
        $written = DurableFile::all($this->stream, $text);
        if ($written !== \strlen($text) || !@fflush($this->stream)) {
            throw NotKept::short(stream_get_meta_data($this->stream)['uri'] ?? 'the recorder', $written, \strlen($text));
        }
    }
}
