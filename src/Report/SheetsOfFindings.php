<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\FindingKind;

/** Where a finding can be seen, and where the setting behind it is changed: core knows no sheets. */
final readonly class SheetsOfFindings
{
    /** The sheet that draws the evidence. */
    public function showing(Finding $f): string
    {
        return match ($f->kind) {
            FindingKind::Sign => '51',
            FindingKind::Damage, FindingKind::Gaps => '52',
            FindingKind::Verdict, FindingKind::Ridge, FindingKind::Magnets => '53',
            FindingKind::Step, FindingKind::Lag => '54',
            FindingKind::Incident => '55',
        };
    }
}
