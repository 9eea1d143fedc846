<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

/** What one position of a lever does to an action. */
enum Cell: string
{
    case Off = 'off';
    case On = 'on';

    /** On, together with other levers. */
    case Together = 'together';
}
