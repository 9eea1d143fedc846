<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

/** A stretch of time in which a channel stayed where it was. */
final readonly class Dwell
{
    /** @param int $from index of its first sample; $to of its last */
    public function __construct(public int $from, public int $to, public float $levelUs, public float $seconds)
    {
    }
}
