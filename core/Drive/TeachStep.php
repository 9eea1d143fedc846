<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/** A step of teaching analogue ESCs the ends of their signal; what all outputs are held at. */
enum TeachStep: string
{
    case Full = 'full';
    case Zero = 'zero';
    case End = 'end';
}
