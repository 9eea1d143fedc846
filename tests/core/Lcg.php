<?php

declare(strict_types=1);

namespace Ortholex\Tests\core;

/** A linear congruential generator that any language can repeat exactly: x ← (1103515245·x + 12345) mod 2³¹. */
final class Lcg
{
    public function __construct(private int $x = 12345)
    {
    }

    /** −0.5 to 0.5 */
    public function next(): float
    {
        $this->x = (1103515245 * $this->x + 12345) % 2147483648;

        return $this->x / 2147483648 - 0.5;
    }

    public function whole(int $low, int $high): int
    {
        return $low + (int) floor(($this->next() + 0.5) * ($high - $low + 1));
    }

    /** About normal, unit deviation: sum of twelve. */
    public function normal(): float
    {
        $sum = 0.0;
        for ($i = 0; $i < 12; ++$i) {
            $sum += $this->next();
        }

        return $sum;
    }
}
