<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

use Ortholex\Core\Fact\Code;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Step\Confidence\Grade;

/** How sure a finding is. */
enum Certainty: string implements Code
{
    case Firm = 'certainty.firm';
    case Fair = 'certainty.fair';
    case Weak = 'certainty.weak';
    case None = 'certainty.none';
    case CannotTell = 'certainty.cannot_tell';
    case Likely = 'certainty.likely';
    case FarAhead = 'certainty.far_ahead';
    case Ahead = 'certainty.ahead';
    case JustAhead = 'certainty.just_ahead';

    public static function ofGrade(Grade $grade): Fact
    {
        return Fact::of(match ($grade) {
            Grade::Firm => self::Firm,
            Grade::Fair => self::Fair,
            Grade::Weak => self::Weak,
            Grade::None => self::None,
        });
    }

    /** Of a motor that is this far ahead of the next, where the first is 1. */
    public static function ofLead(float $margin): self
    {
        return $margin >= 0.6 ? self::FarAhead : ($margin >= 0.35 ? self::Ahead : self::JustAhead);
    }
}
