<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;

/** The ESCs of a linked craft answered. */
final class EscsFound
{
    /** @var list<string> what is to be said of it, in sentences */
    public array $said = [];

    /**
     * @param SettingSet|null       $believed what the book had of the craft's settings; null where they answered for the first time
     * @param array<string, string> $seats    serial number of the ESC at each place, as the book had them
     */
    public function __construct(
        public readonly Craft $craft,
        public readonly ?SettingSet $believed,
        public readonly array $seats,
    ) {
    }
}
