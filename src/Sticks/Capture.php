<?php

declare(strict_types=1);

namespace Ortholex\App\Sticks;

use Ortholex\Core\Craft\Channel;

/** A capture that is under way. */
final readonly class Capture
{
    /** @param Channel|null $asked the stick that is asked for now, where one is */
    public function __construct(public CaptureKind $kind, public ?Channel $asked, public int $plugging, public int $lastFrame)
    {
    }
}
