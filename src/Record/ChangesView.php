<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Settings\ChangeEntry;
use Ortholex\Core\Settings\Setting;

/** What sheet 73 shows. */
final readonly class ChangesView
{
    /**
     * @param list<ChangeEntry>      $entries newest first
     * @param array<string, Setting> $catalogue
     * @param array<int, WayBack>    $ways    by id of the entry
     */
    public function __construct(public array $entries, public array $catalogue, public array $ways)
    {
    }
}
