<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

/** Which settings sheet 71 shows. */
enum ShownSettings: string
{
    case Different = 'different';
    case All = 'all';
    case Staged = 'staged';

    public function label(): string
    {
        return match ($this) {
            self::Different => 'what differs from defaults',
            self::All => 'all',
            self::Staged => 'what is staged',
        };
    }
}
