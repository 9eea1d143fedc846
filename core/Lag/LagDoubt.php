<?php

declare(strict_types=1);

namespace Ortholex\Core\Lag;

/** Why a series over lag tells less than it seems to. */
enum LagDoubt: string
{
    /** In one of its flights at least the sticks hardly moved. */
    case SmallMoves = 'small_moves';

    /** In one of its flights at least too few windows tell. */
    case FewWindows = 'few_windows';

    /** The flights lie further from a line than their windows allow: something else differed too. */
    case NoLine = 'no_line';

    /** Where it crosses may be anywhere in what was flown. */
    case Wide = 'wide';

    /** It crosses where nothing was flown. */
    case Beyond = 'beyond';
}
