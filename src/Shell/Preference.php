<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

/** How a person likes the pages, kept in a cookie of the same name. */
enum Preference: string
{
    case Theme = 'theme';
    case Strip = 'strip';
    case Tiller = 'tiller';

    /** @return list<string> the first holds while none was chosen */
    public function choices(): array
    {
        return match ($this) {
            self::Theme => ['light', 'dark'],
            self::Strip => ['shown', 'away'],
            self::Tiller => ['open', 'shut'],
        };
    }
}
