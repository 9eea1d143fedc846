<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Fact\Code;

/** Why a row could not be read. */
enum BadRowReason: string implements Code
{
    case TooLong = 'bad_row.too_long';
    case Torn = 'bad_row.torn';
    case BreaksOff = 'bad_row.breaks_off';
    case WrongCells = 'bad_row.wrong_cells';
    case NotANumber = 'bad_row.not_a_number';
    case NotFinite = 'bad_row.not_finite';
}
