<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

/** What a job does with its pages just now. */
enum JobPhase: string
{
    case Write = 'write';
    case Verify = 'verify';
}
