<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

/** What goes wrong on a return that is tried. */
enum ReturnWrong: string
{
    case Nothing = 'nothing';
    case BeforeFix = 'before_fix';
    case Blind = 'blind';
}
