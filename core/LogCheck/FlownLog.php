<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

/** A flight that is behind us: what it was flown with, and what its log can be used for. */
final readonly class FlownLog
{
    /** @param array<string, float|int|bool|string> $settings empty where the log does not say */
    public function __construct(public array $settings, public Adequacy $adequacy)
    {
    }
}
