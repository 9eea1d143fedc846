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
    case Margin = 'certainty.margin';

    public static function ofGrade(Grade $grade): Fact
    {
        return Fact::of(match ($grade) {
            Grade::Firm => self::Firm,
            Grade::Fair => self::Fair,
            Grade::Weak => self::Weak,
            Grade::None => self::None,
        });
    }
}
