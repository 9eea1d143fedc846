<?php

declare(strict_types=1);

namespace Ortholex\Bench\World;

/** What has already happened, and is mended by rescue, not by switching it off. */
enum Mishap: string
{
    case Board = 'board';
    case Esc = 'esc';
}
