<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

/** A judgement beside the drawing: what, number, how sure, and the sheet that mends it. */
final readonly class ResponseFinding
{
    public function __construct(
        public string $title,
        public string $sure,
        public string $text,
        public ?string $sheet,
        public string $action,
    ) {
    }
}
