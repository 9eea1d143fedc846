<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\Core\Settings\Setting;

/** One staged change as the tray shows it. */
final readonly class TrayItem
{
    public function __construct(public Setting $setting, public float|int|bool|string $from, public float|int|bool|string $to)
    {
    }
}
