<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** What came of a flight. */
final readonly class Flown
{
    /**
     * @param int|null $recording number of what its recorder wrote; null where nothing was kept
     * @param bool     $unheard   whether nothing was to write: no memory on the board, or set otherwise
     * @param bool     $full      whether the memory was full before it ended
     */
    public function __construct(public FlightEnd $end, public ?int $recording, public bool $unheard, public bool $full)
    {
    }
}
