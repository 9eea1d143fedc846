<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

/** What is done about the levers themselves. */
enum LeverWork: string
{
    case Begin = 'begin';
    case Finish = 'finish';
    case Drop = 'drop';
    case Forget = 'forget';
    case Cut = 'cut';
}
