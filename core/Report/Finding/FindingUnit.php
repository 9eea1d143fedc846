<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

/** What the number of a finding counts. */
enum FindingUnit: string
{
    case Second = 's';
    case Hertz = 'hz';
    case Millisecond = 'ms';
    case Rows = 'rows';
    case Gaps = 'gaps';
    case Correlation = 'correlation';
    case MixerCosine = 'mixer_cosine';
    case ShareOfFlight = 'share_of_flight';
    case ShareOfCommand = 'share_of_command';
    case PerRevolution = 'per_revolution';
}
