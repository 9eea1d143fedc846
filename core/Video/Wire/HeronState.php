<?php

declare(strict_types=1);

namespace Ortholex\Core\Video\Wire;

/** What a video transmitter does now, as it tells it. */
final readonly class HeronState
{
    public function __construct(public float $mhz, public float $mw, public float $degC, public bool $protects)
    {
    }

    public function pack(): string
    {
        return pack('vvvC', (int) $this->mhz, (int) $this->mw, max(0, (int) round(10 * $this->degC)), $this->protects ? 1 : 0);
    }

    /** Null for bytes that are none. */
    public static function unpack(string $bytes): ?self
    {
        /** @var array{mhz: int, mw: int, deg: int, hot: int}|false $v */
        $v = 7 === \strlen($bytes) ? unpack('vmhz/vmw/vdeg/Chot', $bytes) : false;

        return false === $v ? null : new self((float) $v['mhz'], (float) $v['mw'], $v['deg'] / 10, 0 !== $v['hot']);
    }
}
