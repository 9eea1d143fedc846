<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** What a part does for a craft, and so the job of the UART it hangs on. */
enum PartRole: string
{
    case Receiver = 'receiver';
    case Gps = 'gps';
    case Telemetry = 'telemetry';
    case Video = 'video';
    case Recorder = 'recorder';
    case Overlay = 'overlay';

    /** Whether there is ever anything to hear from it. */
    public function speaks(): bool
    {
        return self::Recorder !== $this;
    }
}
