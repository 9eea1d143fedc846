<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Ortholex\Core\Airframe\Frame;

/** What sheet 11 shows. */
final readonly class IdentityView
{
    public function __construct(public bool $linked, public int $differences, public int $snapshots, public ?string $firstSnapshot, public Frame $frame)
    {
    }
}
