<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\Core\Settings\Setting;

/** A setting that stands otherwise on one side than on the other. */
final readonly class DifferentRow
{
    public function __construct(public Setting $setting, public float|int|bool|string $now, public float|int|bool|string $then)
    {
    }
}
