<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** Where the recorder writes to. */
enum RecorderTarget: string
{
    case Nothing = 'nothing';
    case BoardMemory = 'board_memory';
    case Wire = 'wire';
}
