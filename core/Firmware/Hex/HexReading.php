<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware\Hex;

use Ortholex\Core\Firmware\Exception\HexError;
use Ortholex\Core\Firmware\HexImage;

/** The records of a file put together as they come: each type has its own way to say where the data go. */
final class HexReading
{
    /** Records of one segment do not reach past it. */
    private const SEGMENT = 0x10000;

    /** No flash spans more, bytes. */
    private const MOST_SPAN = 67_108_864;

    /** What a linker writes has a handful. */
    private const MOST_RUNS = 50_000;

    private int $base = 0;
    private ?int $entry = null;

    /** @var array<int, list<string>> pieces that follow on, by their first address */
    private array $runs = [];

    /** @var array<int, int> first line of each run */
    private array $lineOf = [];

    /** Where the run that is being read began, and where it goes on. */
    private ?int $start = null;

    private ?int $next = null;
    private ?int $ended = null;

    /** @throws HexError */
    public function take(Record $record, int $line): void
    {
        match ($record->type) {
            RecordType::Data => $this->takeData($record, $line),
            RecordType::End => $this->ended = $line,
            RecordType::ExtendedSegmentAddress => $this->base = $record->number() << 4,
            RecordType::ExtendedLinearAddress => $this->base = $record->number() << 16,
            RecordType::StartSegmentAddress => $this->entry = (($record->number() >> 16) << 4) + ($record->number() & 0xFFFF),
            RecordType::StartLinearAddress => $this->entry = $record->number(),
        };
    }

    /** Line of the end record; null before it. */
    public function ended(): ?int
    {
        return $this->ended;
    }

    /** @throws HexError when there are no data, or they overlap or lie too far apart */
    public function image(): HexImage
    {
        if ([] === $this->runs) {
            throw HexError::noData();
        }
        ksort($this->runs);
        $blocks = [];
        $end = null;
        foreach ($this->runs as $address => $parts) {
            if (null !== $end && $address < $end) {
                throw HexError::overlap($this->lineOf[$address], $address, $end - 1);
            }
            $blocks[$address] = implode('', $parts);
            $end = $address + \strlen($blocks[$address]);
        }
        $span = $end - array_key_first($blocks);
        if ($span > self::MOST_SPAN) {
            throw HexError::scattered($span >> 20);
        }

        return HexImage::of($blocks, $this->entry);
    }

    private function takeData(Record $record, int $line): void
    {
        $count = \strlen($record->data);
        if (0 === $count) {
            return;
        }
        if ($record->address + $count > self::SEGMENT) {
            throw HexError::pastSegment($line, $record->address, $count);
        }
        $at = $this->base + $record->address;
        if ($at !== $this->next || null === $this->start) {
            if (isset($this->runs[$at])) {
                throw HexError::addressTwice($line, $at, $this->lineOf[$at]);
            }
            if (\count($this->runs) >= self::MOST_RUNS) {
                throw HexError::inPieces($line, self::MOST_RUNS);
            }
            $this->start = $at;
            $this->lineOf[$at] = $line;
        }
        $this->runs[$this->start][] = $record->data;
        $this->next = $at + $count;
    }
}
