<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

use Ortholex\Core\Recorder\Unrecorded;

/** What came of a flight. */
final readonly class Flown
{
    /**
     * @param int|null        $recording number of what its recorder wrote; null where nothing was kept
     * @param Unrecorded|null $why       nothing was kept, or with Full not all of it; null for a whole recording
     */
    public function __construct(public FlightEnd $end, public ?int $recording, public ?Unrecorded $why)
    {
    }
}
