<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

/** What the command line reads out of a capture. */
enum CaptureRead: string
{
    case Identify = 'identify';
    case Spans = 'spans';
}
