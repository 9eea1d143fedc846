<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\CommitPlan;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** A UART with a job needs the feature behind it. */
final readonly class RolesHaveNeeds implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        foreach ($set as $name => $value) {
            $need = 1 === preg_match('~^uart\.(\w+)\.role$~', $name) ? CommitPlan::NEEDS[(string) $value] ?? null : null;
            if (null === $need || ($set[$need[0]] ?? null) === $need[1]) {
                continue;
            }
            yield \is_bool($need[1])
                ? Clash::refuse($need[0], ClashCode::RoleNeedsFlag, role: (string) $value, needs: $need[0])
                : Clash::refuse($need[0], ClashCode::RoleNeedsChoice, role: (string) $value, needs: $need[0], choice: $need[1]);
        }
    }
}
