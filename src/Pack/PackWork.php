<?php

declare(strict_types=1);

namespace Ortholex\App\Pack;

/** What is done with the card of a pack. */
enum PackWork: string
{
    case Add = 'add';
    case Take = 'take';
    case Drop = 'drop';
}
