<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

/** What a Commit of all that is staged would do to the flight, where that is to be known before: it is asked once more. */
final readonly class TrayWarning
{
    public function __construct(public string $words)
    {
    }
}
