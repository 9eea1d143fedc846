<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

/** Two settings, or a setting and the hardware, do not go together. */
final readonly class Clash
{
    public const WARN = 'warn';
    public const REFUSE = 'refuse';

    /** @param self::* $weight */
    public function __construct(public string $weight, public string $setting, public string $text)
    {
    }
}
