<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;

/** A board was linked, and its firmware's settings were read; the sheets may add to what is said of it. */
final class CraftLinked
{
    /** @var list<string> sentences to be said beside “Linked.” */
    public array $said = [];

    /**
     * @param SettingSet|null       $believed what the book had of its settings; null where it was never read
     * @param array<string, string> $seats    serial number of the ESC at each place, as the book had them
     */
    public function __construct(
        public readonly Craft $craft,
        public readonly ?SettingSet $believed = null,
        public readonly ?\DateTimeImmutable $readAt = null,
        public readonly array $seats = [],
    ) {
    }
}
