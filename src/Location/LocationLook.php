<?php

declare(strict_types=1);

namespace Ortholex\App\Location;

/** What of location is looked at: the sky, the compass, or the way home. */
enum LocationLook: string
{
    case Sky = 'sky';
    case Compass = 'compass';
    case Home = 'home';

    public function label(): string
    {
        return match ($this) {
            self::Sky => 'Sky and wander',
            self::Compass => 'Compass',
            self::Home => 'The way home',
        };
    }
}
