<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Migration;

use Ortholex\Core\Fact\Code;

/** Why a setting did not simply come along. */
enum FateReason: string implements Code
{
    case NoLongerThere = 'fate.no_longer_there';
    case NotThereBefore = 'fate.not_there_before';
    case RangeNow = 'fate.range_now';
    case NewName = 'fate.new_name';
    case NewNameAndUnit = 'fate.new_name_and_unit';
    case NotAChoice = 'fate.not_a_choice';
    case NotOnOrOff = 'fate.not_on_or_off';
    case NotAList = 'fate.not_a_list';
    case NotANumber = 'fate.not_a_number';
}
