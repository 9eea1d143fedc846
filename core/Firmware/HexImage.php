<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

use Ortholex\Core\Firmware\Exception\HexError;

/** A flash image: blocks of bytes at ascending addresses that neither touch nor overlap. */
final readonly class HexImage
{
    /**
     * @param array<int, string> $blocks address => bytes, ascending
     * @param int|null           $entry  start address of record 03 (segment:offset as linear) or 05
     */
    private function __construct(public array $blocks, public ?int $entry)
    {
    }

    /**
     * @param array<int, string> $blocks address => bytes, in any order
     *
     * @throws HexError when two blocks overlap
     */
    public static function of(array $blocks, ?int $entry = null): self
    {
        ksort($blocks);
        $merged = [];
        $last = null;
        $end = -1;
        foreach ($blocks as $address => $bytes) {
            if ('' === $bytes) {
                continue;
            }
            if (null !== $last && $address < $end) {
                throw HexError::blocksOverlap($address);
            }
            if (null !== $last && $address === $end) {
                $merged[$last] .= $bytes;
            } else {
                $merged[$address] = $bytes;
                $last = $address;
            }
            $end = $address + \strlen($bytes);
        }

        return new self($merged, $entry);
    }

    public function lowest(): int
    {
        return [] === $this->blocks ? 0 : array_key_first($this->blocks);
    }

    /** First address past the image. */
    public function end(): int
    {
        $last = array_key_last($this->blocks);

        return null === $last ? 0 : $last + \strlen($this->blocks[$last]);
    }

    /** Bytes given by the file, gaps not counted. */
    public function size(): int
    {
        return array_sum(array_map('strlen', $this->blocks));
    }

    /** @return list<array{int, int}> address and length of each gap between blocks */
    public function gaps(): array
    {
        $gaps = [];
        $end = null;
        foreach ($this->blocks as $address => $bytes) {
            if (null !== $end) {
                $gaps[] = [$end, $address - $end];
            }
            $end = $address + \strlen($bytes);
        }

        return $gaps;
    }

    /** All bytes from the lowest address to the end; gaps are 0xFF, as erased flash reads. */
    public function flat(): string
    {
        $out = '';
        $at = $this->lowest();
        foreach ($this->blocks as $address => $bytes) {
            $out .= str_repeat("\xFF", $address - $at).$bytes;
            $at = $address + \strlen($bytes);
        }

        return $out;
    }

    public function sha256(): string
    {
        return hash('sha256', $this->flat());
    }
}
