<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

/** What a craft needs next, in a sentence, and where to do it. */
final readonly class NextStep
{
    public function __construct(public string $text, public string $sheet, public string $label)
    {
    }
}
