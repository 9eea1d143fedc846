<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

/** What of a radio is staged together. */
enum RadioPart: string
{
    case Order = 'order';
    case Spans = 'spans';
    case DeadBand = 'dead_band';

    /** Nominal spans, and nothing else. */
    case Stock = 'stock';

    case Telemetry = 'telemetry';
}
