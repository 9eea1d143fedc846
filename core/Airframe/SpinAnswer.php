<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/** What the builder saw when one output pad was driven: which motor turned, and which way. */
final readonly class SpinAnswer
{
    /** @param int $direction +1 clockwise seen from above, −1 counter-clockwise, 0 while it was not said */
    public function __construct(public int $pad, public string $place, public int $direction)
    {
    }
}
