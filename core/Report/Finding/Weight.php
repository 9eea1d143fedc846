<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

/** How grave a finding is. */
enum Weight: string
{
    case Wrong = 'wrong';
    case Mind = 'mind';
    case Good = 'good';

    /** 0 for the gravest. */
    public function rank(): int
    {
        return match ($this) {
            self::Wrong => 0,
            self::Mind => 1,
            self::Good => 2,
        };
    }
}
