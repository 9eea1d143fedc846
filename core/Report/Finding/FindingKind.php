<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

/** What a finding is about. */
enum FindingKind: string
{
    case Incident = 'incident';
    case Sign = 'sign';
    case Verdict = 'verdict';
    case Step = 'step';
    case Ridge = 'ridge';
    case Magnets = 'magnets';
    case Lag = 'lag';
    case Damage = 'damage';
    case Gaps = 'gaps';
}
