<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** Bytes of a receiver, sorted into whole frames; what is broken between them is counted, and no channel comes from it. */
final readonly class FrameScan
{
    /**
     * @param list<array{int, RadioFrame}> $frames offset of its last byte, and what it says
     * @param LinkStatistics|null          $link   as told last
     * @param int                          $refused frames whose check was wrong
     * @param int                          $whole   frames of any kind that were sound
     */
    private function __construct(public array $frames, public ?LinkStatistics $link, public int $refused, public int $whole)
    {
    }

    /** @param Protocol $protocol one that is serial */
    public static function of(string $bytes, Protocol $protocol): self
    {
        return Protocol::Sbus === $protocol ? self::sbus($bytes) : self::crsf($bytes);
    }

    private static function sbus(string $bytes): self
    {
        $frames = [];
        $refused = 0;
        for ($at = 0, $n = \strlen($bytes); $at + Sbus::BYTES <= $n;) {
            $frame = "\x0F" === $bytes[$at] ? Sbus::decode(substr($bytes, $at, Sbus::BYTES)) : null;
            if (null === $frame) {
                $refused += "\x0F" === $bytes[$at] ? 1 : 0;
                ++$at;
                continue;
            }
            $at += Sbus::BYTES;
            $frames[] = [$at - 1, $frame];
        }

        return new self($frames, null, $refused, \count($frames));
    }

    private static function crsf(string $bytes): self
    {
        $frames = [];
        $link = null;
        $refused = 0;
        $n = \strlen($bytes);
        $whole = 0;
        while (null !== ($one = Crsf::take($bytes, $refused))) {
            ++$whole;
            if (Crsf::CHANNELS === $one[0] && null !== ($frame = Crsf::channelsIn($one[1]))) {
                $frames[] = [$n - \strlen($bytes) - 1, $frame];
            } elseif (Crsf::LINK === $one[0]) {
                $link = Crsf::linkIn($one[1]) ?? $link;
            }
        }

        return new self($frames, $link, $refused, $whole);
    }
}
